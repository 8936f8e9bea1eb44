<?php

declare(strict_types=1);

namespace App\Renders;

use App\Models\RenderJob;
use Illuminate\Support\Facades\Storage;
use RuntimeException;
use Symfony\Component\Process\Process;
use ZipArchive;

/** H.264 in MP4 (yuv420p, fast start, exactly the project's rate) by ffmpeg, or the numbered pictures in one zip. */
final class Encoder
{
    public function __construct(private readonly FrameStore $frames, private readonly RenderDesk $desk)
    {
    }

    public function encode(RenderJob $job): void
    {
        $missing = $this->frames->missing($job, $job->from_frame, $job->to_frame);
        if ($missing !== []) {
            throw new RuntimeException('Frames are missing, the first is '.$missing[0].'.');
        }
        $result = $this->frames->result($job);
        is_dir(dirname($result)) || mkdir(dirname($result), 0o775, true);
        $folder = $this->localFolder($job);
        $job->format === 'mp4' ? $this->video($job, $folder, $result) : $this->archive($job, $folder, $result);
    }

    private function video(RenderJob $job, string $folder, string $result): void
    {
        $rate = $this->desk->rate($job);
        $ffmpeg = config('reel.ffmpeg');
        $part = $result.'.part.mp4';
        $process = new Process([
            is_string($ffmpeg) ? $ffmpeg : 'ffmpeg', '-nostdin', '-y', '-loglevel', 'error', '-framerate', $rate, '-start_number', (string) $job->from_frame, '-i', "{$folder}/%06d.png",
            '-frames:v', (string) $job->frames(), '-c:v', 'libx264', '-preset', 'medium', '-crf', '16', '-vf', 'scale=out_color_matrix=bt709:out_range=tv,format=yuv420p',
            '-colorspace', 'bt709', '-color_primaries', 'bt709', '-color_trc', 'bt709', '-r', $rate, '-movflags', '+faststart', '-an', $part,
        ], $folder);
        $process->setTimeout(130);
        $process->run();
        if (! $process->isSuccessful()) {
            throw new RuntimeException('ffmpeg: '.mb_substr(trim($process->getErrorOutput()), 0, 400));
        }
        rename($part, $result);
    }

    private function archive(RenderJob $job, string $folder, string $result): void
    {
        $zip = new ZipArchive;
        if ($zip->open($result, ZipArchive::CREATE | ZipArchive::OVERWRITE) !== true) {
            throw new RuntimeException('The archive cannot be written.');
        }
        foreach ($this->frames->drawn($job) as $f) {
            $name = sprintf('%06d.png', $f);
            $zip->addFile("{$folder}/{$name}", $name);
            $zip->setCompressionName($name, ZipArchive::CM_STORE);
        }
        $zip->close();
    }

    /** ffmpeg reads files: on a remote disk they are brought over first. */
    private function localFolder(RenderJob $job): string
    {
        $disk = Storage::disk('reel');
        if (config('filesystems.disks.reel.driver') === 'local') {
            return $disk->path($this->frames->folder($job).'/frames');
        }
        $folder = Storage::disk('local')->path("renders/{$job->id}/frames");
        is_dir($folder) || mkdir($folder, 0o775, true);
        foreach ($this->frames->drawn($job) as $f) {
            file_put_contents(sprintf('%s/%06d.png', $folder, $f), $this->frames->read($job, $f));
        }

        return $folder;
    }
}
