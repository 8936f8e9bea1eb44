<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Exceptions\UserError;
use App\Scenes\SceneStream;
use App\Sound\SceneSound;
use App\Sound\SceneWords;
use App\Speech\Readings;
use CrispReel\Core\Compile\CompiledScene;
use CrispReel\Core\Document\Mix;
use Illuminate\Support\Facades\File;

final class SoundCommand extends ReelCommand
{
    protected $signature = 'reel:sound {scene} {--from=0} {--to= : frame after the last}
        {--out= : file to write, .wav, .srt or .vtt} {--loudness=-14 : LUFS of the mix} {--stems : each lane beside it, as NAME.speech.wav}
        {--json}';

    protected $description = 'Write what is heard of a scene as WAV, or what is said as SubRip or WebVTT';

    protected function work(): int
    {
        $scene = $this->scene($this->argument('scene'));
        $out = (string) ($this->option('out') ?? getcwd().'/sound.wav');
        $kind = strtolower(pathinfo($out, PATHINFO_EXTENSION));
        if (! in_array($kind, ['wav', 'srt', 'vtt'], true)) {
            throw new UserError('sound.kind', "\"{$out}\" is no kind of file that is written here.", 'End it with .wav, .srt or .vtt.');
        }
        app(Readings::class)->makeAll($scene);
        $compiled = app(SceneStream::class)->compile($scene);
        [$from, $to] = [$this->whole('from') ?? 0, $this->whole('to') ?? $compiled->frames];
        if ($from < 0 || $to <= $from || $to > $compiled->frames) {
            throw new UserError(
                'sound.range', "The range {$from} to {$to} is not within the scene.",
                "Choose frames from 0 to {$compiled->frames}; the end is exclusive.",
            );
        }
        $words = SceneWords::of($compiled, $from, $to);
        [$bytes, $loudness] = match ($kind) {
            'srt' => [$words->srt(), null], 'vtt' => [$words->vtt(), null],
            default => $this->mix($compiled, $from, $to, $out),
        };
        if (@file_put_contents($out, $bytes) === false) {
            throw new UserError('sound.out', "\"{$out}\" cannot be written.", 'Give a file in a folder that you may write in.');
        }

        return $this->answer(['file' => $out, 'bytes' => strlen($bytes), 'loudness' => $loudness], [
            $loudness === null ? "{$out}: written." : sprintf('%s: %.1f LUFS.', $out, $loudness),
        ]);
    }

    /** LUFS that are asked for, of a mix or of a film. */
    public static function loudness(mixed $asked): float
    {
        if (! is_numeric($asked) || $asked < -40.0 || $asked > -8.0) {
            throw new UserError(
                'sound.loudness', '"'.(
                    is_scalar($asked) ? $asked : '?'
                ).'" is no loudness of a mix.', 'Give LUFS from -40 to -8, as -14 or -23.',
            );
        }

        return (float) $asked;
    }

    /** @return array{string, float} the mix, and its loudness; stems are left beside it */
    private function mix(CompiledScene $scene, int $from, int $to, string $out): array
    {
        $folder = sys_get_temp_dir().'/reel-sound-'.bin2hex(random_bytes(8));
        mkdir($folder, 0o700);
        try {
            $loudness = app(SceneSound::class)->mix(
                $scene, $from, $to, $folder, self::loudness($this->option('loudness')), (bool) $this->option('stems'),
            );
            foreach (Mix::LANES as $lane) {
                if (is_file("{$folder}/{$lane}.wav")) {
                    File::copy("{$folder}/{$lane}.wav", substr($out, 0, -4).".{$lane}.wav");
                }
            }

            return [(string) file_get_contents("{$folder}/mix.wav"), $loudness];
        } finally {
            File::deleteDirectory($folder);
        }
    }
}
