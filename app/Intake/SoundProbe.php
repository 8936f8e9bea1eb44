<?php

declare(strict_types=1);

namespace App\Intake;

use App\Exceptions\UserError;
use App\Isolation\Box;
use App\Isolation\BoxLimits;
use CrispReel\Core\Format\Wave;
use CrispReel\Core\Sound\WavePicture;

/** What a sound file is: length, channels, rate; told by ffprobe in the box, which is told the format and guesses none. */
final class SoundProbe
{
    /** Samples a second that the picture is made of. */
    private const OUTLINE_RATE = 2000;

    /** @return array{seconds: float, channels: int, sampleRate: int, codec: string} */
    public function facts(string $bytes, string $ending): array
    {
        $told = json_decode($this->ran($bytes, $ending, 10, [
            self::program('ffprobe'), '-v', 'error', '-protocol_whitelist', 'file', '-f', self::format($ending), '-select_streams', 'a:0',
            '-show_entries', 'stream=codec_name,channels,sample_rate:format=duration', '-of', 'json', 'sound',
        ]) ?? throw self::unreadable(), true);
        $stream = is_array($told) && is_array($told['streams'][0] ?? null) ? $told['streams'][0] : throw self::unreadable();
        $format = is_array($told['format'] ?? null) ? $told['format'] : [];
        $seconds = is_numeric($format['duration'] ?? null) ? (float) $format['duration'] : 0.0;
        $channels = is_numeric($stream['channels'] ?? null) ? (int) $stream['channels'] : 0;
        if ($seconds <= 0.0 || $seconds > 36000.0 || $channels < 1) {
            throw self::unreadable();
        }

        return [
            'seconds' => round($seconds, 3), 'channels' => $channels,
            'sampleRate' => is_numeric($stream['sample_rate'] ?? null) ? (int) $stream['sample_rate'] : 0,
            'codec' => is_string($stream['codec_name'] ?? null) ? $stream['codec_name'] : '?',
        ];
    }

    /** Its picture: how loud it is along its length (of very long ones, the first ten minutes). Null where it cannot be played. */
    public function picture(string $bytes, string $ending): ?string
    {
        $pcm = $this->ran($bytes, $ending, 20, [
            self::program('ffmpeg'), '-v', 'error', '-nostdin', '-protocol_whitelist', 'file,pipe', '-f', self::format($ending),
            '-t', '600', '-i', 'sound', '-map', '0:a:0', '-ac', '1', '-ar', (string) self::OUTLINE_RATE, '-f', 's16le', 'pipe:1',
        ]);
        $wave = Wave::fromPcm(self::OUTLINE_RATE, (string) $pcm);

        return $wave->samples === [] ? null : WavePicture::of($wave);
    }

    /**
     * What a program says of the file; null where it took too long or was stopped.
     *
     * @param  list<string>  $command  the file is called "sound"
     */
    private function ran(string $bytes, string $ending, int $seconds, array $command): ?string
    {
        $result = Box::run($command, ['sound' => $bytes], [], new BoxLimits($seconds, $seconds + 2));

        return $result->timedOut || $result->broke() ? null : $result->output;
    }

    /** A playlist that calls itself a sound is read as that sound, and is none. */
    private static function format(string $ending): string
    {
        return in_array($ending, FileKinds::SOUNDS, true) ? $ending : throw self::unreadable();
    }

    private static function program(string $name): string
    {
        $path = config("reel.{$name}");

        return is_string($path) ? $path : $name;
    }

    private static function unreadable(): UserError
    {
        return new UserError('sound.unreadable', 'There is no sound in it that can be played.', 'Save it again as WAV or FLAC.');
    }
}
