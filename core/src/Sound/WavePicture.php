<?php

declare(strict_types=1);

namespace CrispReel\Core\Sound;

use CrispReel\Core\Format\Wave;

/** The picture of a sound for its shelf: a bar for every stretch of it, as high as it is loud. */
final class WavePicture
{
    private const WIDTH = 320;

    private const HEIGHT = 240;

    private const BARS = 40;

    private const PAPER = 0xE6DECC;

    private const INK = 0x0A6E6E;

    /** @return string PNG, 320 x 240 */
    public static function of(Wave $wave): string
    {
        $image = imagecreatetruecolor(self::WIDTH, self::HEIGHT);
        imagefill($image, 0, 0, self::PAPER);
        $outline = $wave->outline(self::BARS);
        $most = max(0.05, ...$outline);
        $step = (self::WIDTH - 32) / self::BARS;
        foreach ($outline as $n => $loud) {
            // By the root, so that what is soft is seen too.
            $half = (int) max(1, round(0.36 * self::HEIGHT * sqrt($loud / $most)));
            $x = (int) round(16 + $n * $step);
            imagefilledrectangle(
                $image,
                $x,
                intdiv(self::HEIGHT, 2) - $half,
                $x + (int) ($step * 0.6),
                intdiv(self::HEIGHT, 2) + $half,
                self::INK,
            );
        }
        ob_start();
        imagepng($image, null, 9);

        return (string) ob_get_clean();
    }
}
