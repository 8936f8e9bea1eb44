<?php

declare(strict_types=1);

namespace CrispReel\Core\Kit;

/**
 * sRGB to linear light (IEC 61966-2-1).
 *
 * @phpstan-type Rgb array{float, float, float}
 */
final class Colour
{
    /** @return Rgb linear */
    public static function hex(int $srgb): array
    {
        return [self::linear($srgb >> 16 & 255), self::linear($srgb >> 8 & 255), self::linear($srgb & 255)];
    }

    private static function linear(int $byte): float
    {
        $v = $byte / 255;

        return $v <= 0.04045 ? $v / 12.92 : (($v + 0.055) / 1.055) ** 2.4;
    }
}
