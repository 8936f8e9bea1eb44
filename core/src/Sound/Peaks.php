<?php

declare(strict_types=1);

namespace CrispReel\Core\Sound;

/** How loud a sound is along its length, for drawing it: of each stretch its loudest sample. */
final class Peaks
{
    /** Samples a second that it is made of. */
    public const RATE = 8000;

    /** Of a second; fewer of what is so long that there would be more than the most. */
    private const PER_SECOND = 100;

    private const MOST = 60000;

    /**
     * @param  string  $pcm  16-bit little-endian samples of one channel at self::RATE
     * @return array{perSecond: float, levels: string} a byte for each stretch, 255 the loudest that there can be
     */
    public static function of(string $pcm): array
    {
        $per = max(intdiv(self::RATE, self::PER_SECOND), (int) ceil(intdiv(strlen($pcm), 2) / self::MOST));
        $levels = '';
        for ($at = 0, $end = strlen($pcm) & ~1; $at < $end; $at += 2 * $per) {
            /** @var array<int, int> $samples */
            $samples = unpack('s*', substr($pcm, $at, min(2 * $per, $end - $at)));
            $most = $samples === [] ? 0 : max(max($samples), -min($samples));
            $levels .= chr((int) round(255 * min(32767, $most) / 32767));
        }

        return ['perSecond' => self::RATE / $per, 'levels' => $levels];
    }
}
