<?php

declare(strict_types=1);

namespace App\Sound;

use App\Isolation\Box;
use App\Isolation\BoxLimits;
use RuntimeException;

/**
 * A mix brought to the loudness that it is delivered with: measured (EBU R 128), moved by one gain, its peaks held by a limiter at
 * four times the rate, and measured once more. docs/formats.md has the filter graph.
 */
final class Master
{
    /** LUFS, and decibels that no peak goes beyond. */
    public const LOUDNESS = -14.0;

    private const PEAK = -1.5;

    /** A mix as silent as that is left as it is. */
    private const SILENT = -60.0;

    private const TRIES = 3;

    /**
     * Leaves "mix.wav" in the folder, from "mix.f32" (floats, left and right by turns).
     *
     * @return array{float, float} LUFS that it has now, and decibels that it was raised by
     */
    public static function make(string $folder, int $rate, float $loudness = self::LOUDNESS): array
    {
        $in = ['-f', 'f32le', '-ar', (string) $rate, '-ac', '2', '-i', 'mix.f32'];
        $gain = 0.0;
        $now = self::measured($folder, $in, 'anull');
        if ($now < self::SILENT) {
            self::ffmpeg($folder, [...$in, '-c:a', 'pcm_s16le', 'mix.wav']);

            return [$now, 0.0];
        }
        for ($try = 0; $try < self::TRIES; $try++) {
            $gain += $loudness - $now;
            // The limiter takes some of what was given: what is missing is given once more.
            $now = self::measured($folder, $in, self::graph($gain, $rate));
            if (abs($loudness - $now) < 0.2) {
                break;
            }
        }
        self::ffmpeg($folder, [...$in, '-af', self::graph($gain, $rate), '-c:a', 'pcm_s16le', 'mix.wav']);

        return [$now, $gain];
    }

    /** A stem beside the mix: "NAME.f32" raised by as much as that was, and nothing else, so that stems add up; no peak clips floats. */
    public static function stem(string $folder, string $name, int $rate, float $gain): void
    {
        self::ffmpeg($folder, [
            '-f', 'f32le', '-ar', (string) $rate, '-ac', '2', '-i', "{$name}.f32", '-af', sprintf('volume=%.3FdB', $gain),
            '-c:a', 'pcm_f32le',
            "{$name}.wav",
        ]);
    }

    private static function graph(float $gain, int $rate): string
    {
        return sprintf(
            'volume=%.3FdB,aresample=%d,alimiter=limit=%.5F:attack=5:release=60:level=disabled:latency=1,aresample=%d', $gain, 4 * $rate,
            10.0 ** (self::PEAK / 20.0), $rate,
        );
    }

    /** @param  list<string>  $in */
    private static function measured(string $folder, array $in, string $graph): float
    {
        self::ffmpeg(
            $folder, [...$in, '-af', "{$graph},ebur128=framelog=verbose:metadata=1,ametadata=print:file=loud.txt", '-f', 'null', '-'],
        );
        $told = (string) file_get_contents("{$folder}/loud.txt");

        return preg_match_all('/lavfi\.r128\.I=(-?[\d.]+)/', $told, $m) > 0 ? (float) end($m[1]) : -70.0;
    }

    /** @param  list<string>  $arguments */
    private static function ffmpeg(string $folder, array $arguments): void
    {
        $ffmpeg = config('reel.ffmpeg');
        $result = Box::in($folder, [
            is_string($ffmpeg) ? $ffmpeg : 'ffmpeg', '-nostdin', '-y', '-v', 'error', '-bitexact', '-protocol_whitelist', 'file',
            ...$arguments,
        ], new BoxLimits(600, 600, 4 << 30, 64 << 30));
        if ($result->code !== 0) {
            throw new RuntimeException("The sound could not be mixed (ffmpeg ended with code {$result->code}).");
        }
    }
}
