<?php

declare(strict_types=1);

namespace App\Intake;

use App\Exceptions\UserError;
use Symfony\Component\Process\Exception\ProcessTimedOutException;
use Symfony\Component\Process\Process;

/** What a sound file is: length, channels, rate; told by ffprobe in a limited process. */
final class SoundProbe
{
    /** @return array{seconds: float, channels: int, sampleRate: int, codec: string} */
    public function facts(string $bytes, string $ending): array
    {
        $file = sys_get_temp_dir().'/reel-'.bin2hex(random_bytes(8)).".{$ending}";
        file_put_contents($file, $bytes);
        try {
            $probe = config('reel.ffprobe');
            $process = new Process([
                'prlimit', '--as='.(1 << 30), '--cpu=10', '--', is_string($probe) ? $probe : 'ffprobe', '-v', 'error', '-protocol_whitelist', 'file', '-select_streams', 'a:0',
                '-show_entries', 'stream=codec_name,channels,sample_rate:format=duration,format_name', '-of', 'json', $file,
            ], null, null, null, 12);
            try {
                $process->run();
            } catch (ProcessTimedOutException|\Symfony\Component\Process\Exception\ProcessSignaledException) {
                throw self::unreadable();
            }
            $told = json_decode($process->getOutput(), true);
        } finally {
            @unlink($file);
        }
        $stream = is_array($told) && is_array($told['streams'][0] ?? null) ? $told['streams'][0] : throw self::unreadable();
        $format = is_array($told['format'] ?? null) ? $told['format'] : [];
        $seconds = is_numeric($format['duration'] ?? null) ? (float) $format['duration'] : 0.0;
        $channels = is_numeric($stream['channels'] ?? null) ? (int) $stream['channels'] : 0;
        if ($seconds <= 0.0 || $seconds > 36000.0 || $channels < 1) {
            throw self::unreadable();
        }

        return [
            'seconds' => round($seconds, 3), 'channels' => $channels, 'sampleRate' => is_numeric($stream['sample_rate'] ?? null) ? (int) $stream['sample_rate'] : 0,
            'codec' => is_string($stream['codec_name'] ?? null) ? $stream['codec_name'] : '?',
        ];
    }

    private static function unreadable(): UserError
    {
        return new UserError('sound.unreadable', 'There is no sound in it that can be played.', 'Save it again as WAV or FLAC.');
    }
}
