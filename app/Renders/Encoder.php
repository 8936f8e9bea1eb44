<?php

declare(strict_types=1);

namespace App\Renders;

use App\Isolation\Box;
use App\Isolation\BoxLimits;
use App\Models\RenderChunk;
use App\Models\RenderJob;
use App\Sound\SceneSound;
use CrispReel\Core\Document\Mix;
use Illuminate\Support\Facades\File;
use RuntimeException;
use ZipArchive;

/**
 * H.264 in MP4 or VP9 in WebM (yuv420p, exactly the project's rate) by ffmpeg, or the numbered pictures in one zip. Each chunk is
 * encoded by who drew it; the parts are joined without encoding again. The same frames give the same bytes.
 */
final class Encoder
{
    /** Machine seconds that a million pixels of one frame may take, on a slow machine. */
    private const SECONDS_A_MEGAPIXEL = 1.5;

    public function __construct(
        private readonly FrameStore $frames, private readonly RenderDesk $desk, private readonly SceneSound $sound,
    ) {
    }

    /** The chunk's frames as a part of the film. Nothing is done where the part is there already. */
    public function part(RenderJob $job, RenderChunk $chunk): void
    {
        $format = FilmFormat::of($job->format);
        if (! $format->isFilm() || $this->frames->hasPart($job, $chunk->from_frame)) {
            return;
        }
        $this->refuseMissing($job, $chunk->from_frame, $chunk->to_frame);
        $rate = $this->desk->rate($job);
        $count = $chunk->to_frame - $chunk->from_frame;
        $seconds = (int) (30 + $count * $job->width * $job->height / 1e6 * self::SECONDS_A_MEGAPIXEL);
        $this->inFolder(function (string $folder) use ($job, $chunk, $rate, $count, $seconds, $format): void {
            for ($f = $chunk->from_frame; $f < $chunk->to_frame; $f++) {
                file_put_contents(sprintf('%s/%06d.png', $folder, $f), $this->frames->read($job, $f));
            }
            $this->ffmpeg($folder, [
                '-framerate', $rate, '-f', 'image2', '-start_number', (string) $chunk->from_frame, '-i', '%06d.png', '-frames:v',
                (string) $count, ...$format->pictures(),
                '-vf', 'scale=out_color_matrix=bt709:out_range=tv,format=yuv420p', '-colorspace', 'bt709', '-color_primaries', 'bt709',
                '-color_trc', 'bt709', '-r', $rate,
                '-an', ...$format->wrapper(false), "part.{$format->value}",
            ], $seconds);
            $this->frames->putPart($job, $chunk->from_frame, (string) file_get_contents("{$folder}/part.{$format->value}"));
        });
    }

    /** All parts, or all pictures, to the file that people take away. */
    public function join(RenderJob $job): void
    {
        $format = FilmFormat::of($job->format);
        if ($format->isSeen()) {
            $this->refuseMissing($job, $job->from_frame, $job->to_frame);
        }
        $this->inFolder(fn (string $folder) => match ($format) {
            FilmFormat::Pictures => $this->archive($job, $folder),
            FilmFormat::Sound, FilmFormat::Stems => $this->sound($job, $folder, $format),
            default => $this->film($job, $folder, $format),
        });
    }

    private function film(RenderJob $job, string $folder, FilmFormat $format): void
    {
        $list = '';
        foreach ($job->chunks()->orderBy('from_frame')->get() as $n => $chunk) {
            $this->part($job, $chunk);
            file_put_contents("{$folder}/{$n}.{$format->value}", $this->frames->readPart($job, $chunk->from_frame));
            $list .= "file '{$n}.{$format->value}'\n";
        }
        file_put_contents("{$folder}/parts.txt", $list);
        $isHeard = $this->mixed($job, $folder);
        $this->ffmpeg(
            $folder,
            [
                '-f', 'concat', '-i', 'parts.txt', ...($isHeard ? ['-i', 'mix.wav'] : []), '-c:v', 'copy',
                ...($isHeard ? ['-map', '0:v:0', '-map', '1:a:0', ...$format->sound()] : []),
                ...$format->wrapper(true), "result.{$format->value}",
            ],
            60 + intdiv($job->frames(), 50),
        );
        $this->frames->putResult($job, "{$folder}/result.{$format->value}");
    }

    /** What is heard of the frames as "mix.wav" in the folder, exactly as long as they are; false: nothing is. */
    private function mixed(RenderJob $job, string $folder): bool
    {
        $scene = $this->desk->heard($job);
        if ($scene === null) {
            return false;
        }
        $stems = FilmFormat::of($job->format) === FilmFormat::Stems;
        $this->sound->mix($scene, $job->from_frame, $job->to_frame, $folder, $job->loudness, $stems);

        return true;
    }

    /** The mix by itself, or it and each lane that is heard. */
    private function sound(RenderJob $job, string $folder, FilmFormat $format): void
    {
        if (! $this->mixed($job, $folder)) {
            throw new RuntimeException('Nothing is heard in these frames.');
        }
        if ($format === FilmFormat::Sound) {
            $this->frames->putResult($job, "{$folder}/mix.wav");

            return;
        }
        $zip = new ZipArchive;
        $zip->open("{$folder}/result.zip", ZipArchive::CREATE | ZipArchive::OVERWRITE);
        foreach (['mix', ...Mix::LANES] as $lane) {
            if (is_file("{$folder}/{$lane}.wav")) {
                $zip->addFile("{$folder}/{$lane}.wav", "{$lane}.wav");
                $zip->setMtimeName("{$lane}.wav", 315532800);
            }
        }
        if (! $zip->close()) {
            throw new RuntimeException('The archive cannot be written; is the disk full?');
        }
        $this->frames->putResult($job, "{$folder}/result.zip");
    }

    private function archive(RenderJob $job, string $folder): void
    {
        $zip = new ZipArchive;
        if ($zip->open("{$folder}/result.zip", ZipArchive::CREATE | ZipArchive::OVERWRITE) !== true) {
            throw new RuntimeException('The archive cannot be written.');
        }
        for ($f = $job->from_frame; $f < $job->to_frame; $f++) {
            $name = sprintf('%06d.png', $f);
            // By file, so that a long sequence is never in memory as a whole.
            file_put_contents("{$folder}/{$name}", $this->frames->read($job, $f));
            $zip->addFile("{$folder}/{$name}", $name);
            $zip->setCompressionName($name, ZipArchive::CM_STORE);
            $zip->setMtimeName($name, 315532800);
        }
        if (! $zip->close()) {
            throw new RuntimeException('The archive cannot be written; is the disk full?');
        }
        $this->frames->putResult($job, "{$folder}/result.zip");
    }

    /** @param  list<string>  $arguments */
    private function ffmpeg(string $folder, array $arguments, int $seconds): void
    {
        $ffmpeg = config('reel.ffmpeg');
        $result = Box::in(
            $folder,
            [
                is_string($ffmpeg) ? $ffmpeg : 'ffmpeg', '-nostdin', '-y', '-loglevel', 'error', '-bitexact', '-protocol_whitelist',
                'file', ...$arguments,
            ],
            new BoxLimits(2 * $seconds, $seconds, 4 << 30, 64 << 30),
        );
        $out = end($arguments);
        if ($result->code !== 0 || ! is_file("{$folder}/{$out}")) {
            throw new RuntimeException(
                $result->timedOut ? "encoding took more than {$seconds} seconds." : "the video encoder ended with code {$result->code}."
            );
        }
    }

    private function refuseMissing(RenderJob $job, int $from, int $to): void
    {
        $missing = $this->frames->missing($job, $from, $to);
        if ($missing !== []) {
            throw new RuntimeException('Frames are missing, the first is '.$missing[0].'.');
        }
    }

    /** @param  callable(string): void  $work */
    private function inFolder(callable $work): void
    {
        $folder = sys_get_temp_dir().'/reel-film-'.bin2hex(random_bytes(8));
        mkdir($folder, 0o700);
        try {
            $work($folder);
        } finally {
            File::deleteDirectory($folder);
        }
    }
}
