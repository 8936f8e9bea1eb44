<?php

declare(strict_types=1);

namespace App\Sound;

use App\Isolation\Box;
use App\Isolation\BoxLimits;
use CrispReel\Core\Sound\Mixdown;
use RuntimeException;

/** Sound files read as samples, by ffmpeg in the box. */
final class SoundFiles
{
    private const MOST_SECONDS = 3600;

    /**
     * @param  1|2  $channels
     * @return string 16-bit little-endian samples at so many a second
     */
    public function pcm(string $bytes, int $channels, int $rate = Mixdown::RATE): string
    {
        $ffmpeg = config('reel.ffmpeg');
        $result = Box::run(
            [
                is_string($ffmpeg) ? $ffmpeg : 'ffmpeg', '-v', 'error', '-nostdin', '-protocol_whitelist', 'file', '-t',
                (string) self::MOST_SECONDS, '-i', 'sound', '-map', '0:a:0', '-ac', (string) $channels, '-ar', (string) $rate,
                '-f', 's16le', 'sound.pcm',
            ],
            ['sound' => $bytes], ['sound.pcm'], new BoxLimits(120, 120),
        );

        return $result->files['sound.pcm'] ?? throw new RuntimeException(
            "A sound could not be read (ffmpeg ended with code {$result->code}).",
        );
    }
}
