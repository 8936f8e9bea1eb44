<?php

declare(strict_types=1);

namespace CrispReel\Core\Surfaces;

use CrispReel\Core\Kit\Colour;

/**
 * Linear light (Rec. 709 primaries) in Oklab, where equal steps look equal: B. Ottosson, "A perceptual color space for image
 * processing", 2020. L is 0 for black and 1 for white; a goes from green to red, b from blue to yellow.
 *
 * @phpstan-type Rgb array{float, float, float}
 */
final class Oklab
{
    /** Chroma below which a colour has no hue to speak of. */
    private const GREY = 0.028;

    /** Names of hues, each up to an angle in degrees. */
    private const HUES = [
        [15.0, 'pink'], [42.0, 'red'], [82.0, 'orange'], [122.0, 'yellow'], [165.0, 'green'], [215.0, 'teal'], [285.0, 'blue'],
        [320.0, 'violet'], [360.0, 'pink'],
    ];

    /**
     * @param  Rgb  $c  linear
     * @return Rgb L, a, b
     */
    public static function of(array $c): array
    {
        $l = self::root(0.4122214708 * $c[0] + 0.5363325363 * $c[1] + 0.0514459929 * $c[2]);
        $m = self::root(0.2119034982 * $c[0] + 0.6806995451 * $c[1] + 0.1073969566 * $c[2]);
        $s = self::root(0.0883024619 * $c[0] + 0.2817188376 * $c[1] + 0.6299787005 * $c[2]);

        return [
            0.2104542553 * $l + 0.7936177850 * $m - 0.0040720468 * $s,
            1.9779984951 * $l - 2.4285922050 * $m + 0.4505937099 * $s,
            0.0259040371 * $l + 0.7827717662 * $m - 0.8086757660 * $s,
        ];
    }

    private static function root(float $v): float
    {
        return $v <= 0.0 ? 0.0 : $v ** (1 / 3);
    }

    /**
     * What people call it: "dark blue", "beige", "white".
     *
     * @param  Rgb  $c  linear
     */
    public static function name(array $c): string
    {
        [$light, $a, $b] = self::of($c);
        $chroma = hypot($a, $b);
        if ($chroma < self::GREY) {
            return match (true) {
                $light > 0.93 => 'white', $light > 0.75 => 'light grey', $light > 0.45 => 'grey', $light > 0.25 => 'dark grey',
                default => 'black',
            };
        }
        $degrees = fmod(rad2deg(atan2($b, $a)) + 360.0, 360.0);
        $hue = self::hue($degrees);
        if ($hue === 'pink' && $degrees < 180.0 && $light < 0.6) {
            $hue = 'red';
        }
        if ($hue === 'red' && $degrees > 30.0 && $chroma < 0.09) {
            $hue = 'orange';
        }
        if (in_array($hue, ['orange', 'yellow'], true) && $chroma < 0.1) {
            return $light > 0.72 ? 'beige' : ($light > 0.36 ? 'brown' : 'dark brown');
        }
        if ($hue === 'orange' && $light < 0.56) {
            return $light > 0.36 ? 'brown' : 'dark brown';
        }
        if ($hue === 'red' && $light > 0.74) {
            return 'pink';
        }

        return ($light < 0.38 ? 'dark ' : ($light > 0.82 && $hue !== 'yellow' ? 'light ' : '')).$hue;
    }

    private static function hue(float $degrees): string
    {
        foreach (self::HUES as [$to, $name]) {
            if ($degrees < $to) {
                return $name;
            }
        }

        return 'pink';
    }

    /** @return Rgb linear light of a colour written #rrggbb (sRGB, IEC 61966-2-1) */
    public static function linear(string $hex): array
    {
        return Colour::hex((int) hexdec(substr($hex, 1)));
    }

    /** @param  Rgb  $c  linear; clipped to what a screen shows */
    public static function hex(array $c): string
    {
        return '#'.implode('', array_map(static function (float $v): string {
            $v = max(0.0, min(1.0, $v));

            return sprintf('%02x', (int) round(255 * ($v <= 0.0031308 ? 12.92 * $v : 1.055 * $v ** (1 / 2.4) - 0.055)));
        }, $c));
    }

    /** @param  Rgb  $c  linear; luminance by Rec. 709 */
    public static function luminance(array $c): float
    {
        return 0.2126 * $c[0] + 0.7152 * $c[1] + 0.0722 * $c[2];
    }
}
