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

    /** LUFS of a second in which nothing is heard; seconds of the windows that it is measured in. */
    private const SILENT = -70.0;

    private const WINDOW = 0.4;

    /**
     * A sound as it is heard: of one channel on both sides as loud as it is in the file, of more than two folded into two.
     *
     * @return array{string, 1|2} 16-bit little-endian samples at Mixdown::RATE, and their channels by turns
     */
    public function sides(string $bytes): array
    {
        $wav = $this->ran($bytes, [
            '-af', 'aformat=channel_layouts=mono|stereo', '-ar', (string) Mixdown::RATE, '-bitexact', '-c:a', 'pcm_s16le', '-f', 'wav',
            'sound.out',
        ]);
        $data = strpos($wav, 'data');

        // What ffmpeg writes: channels at byte 22, samples after the name and the length of their chunk.
        return $data === false ? ['', 1] : [substr($wav, $data + 8), unpack('v', $wav, 22) === [1 => 2] ? 2 : 1];
    }

    /** @return list<float> LUFS of each second, heard on both sides (EBU R 128, mean of the windows that end in it); empty: too short */
    public function loudness(string $bytes): array
    {
        $told = $this->ran($bytes, [
            '-af', 'aformat=channel_layouts=mono|stereo,ebur128=metadata=1:dualmono=true,ametadata=print:key=lavfi.r128.M:file=sound.out',
            '-f', 'null', '-',
        ]);
        preg_match_all('/pts_time:([\d.]+)\s+lavfi\.r128\.M=(\S+)/', $told, $found, PREG_SET_ORDER);
        $power = [];
        foreach ($found as [, $t, $m]) {
            // Of 0.1 s each, told by its beginning.
            if ((float) $t + 0.1 >= self::WINDOW - 1e-6) {
                $power[(int) ((float) $t + 0.001)][] = is_numeric($m) ? 10.0 ** ((float) $m / 10.0) : 0.0;
            }
        }

        return array_map(
            static fn (array $p): float => round(max(self::SILENT, 10.0 * log10(array_sum($p) / count($p) + 1e-9)), 1),
            array_values($power),
        );
    }

    /**
     * @param  1|2  $channels
     * @return string 16-bit little-endian samples at so many a second
     */
    public function pcm(string $bytes, int $channels, int $rate = Mixdown::RATE): string
    {
        return $this->ran($bytes, ['-ac', (string) $channels, '-ar', (string) $rate, '-f', 's16le', 'sound.out']);
    }

    /**
     * @param  list<string>  $arguments  what is made of it, as "sound.out"
     * @return string what is in that
     */
    private function ran(string $bytes, array $arguments): string
    {
        $ffmpeg = config('reel.ffmpeg');
        $result = Box::run(
            [
                is_string($ffmpeg) ? $ffmpeg : 'ffmpeg', '-v', 'error', '-nostdin', '-protocol_whitelist', 'file', '-t',
                (string) self::MOST_SECONDS, '-i', 'sound', '-map', '0:a:0', ...$arguments,
            ],
            ['sound' => $bytes], ['sound.out'], new BoxLimits(120, 120),
        );

        return $result->files['sound.out'] ?? throw new RuntimeException(
            "A sound could not be read (ffmpeg ended with code {$result->code}).",
        );
    }
}
