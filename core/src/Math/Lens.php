<?php

declare(strict_types=1);

namespace CrispReel\Core\Math;

/** Lens formulas. Lengths on the sensor in millimetres, distances in metres, angles in radians. */
final class Lens
{
    /** Plain sensor sizes, width x height in mm. */
    public const SENSORS = [
        'full frame' => [36.0, 24.0], 'Super 35' => [24.89, 18.66], '16 mm' => [12.52, 7.41], 'one-inch' => [13.2, 8.8],
    ];

    /** Angle of view across a length: 2 atan(d / 2f). */
    public static function angle(float $lengthMm, float $focalMm): float
    {
        return 2 * atan($lengthMm / (2 * $focalMm));
    }

    /** Vertical angle of a picture whose width fills the sensor (gate fit by width). */
    public static function verticalAngle(float $sensorWidthMm, float $focalMm, float $aspect): float
    {
        return self::angle($sensorWidthMm / $aspect, $focalMm);
    }

    /** Circle of confusion: sensor diagonal / 1500. */
    public static function confusion(float $widthMm, float $heightMm): float
    {
        return hypot($widthMm, $heightMm) / 1500;
    }

    /**
     * Near and far limit of acceptable focus (thin lens, hyperfocal form H = f^2 / (N c) + f).
     *
     * @return array{float, float} metres; the far one may be INF
     */
    public static function depthOfField(float $focalMm, float $fStop, float $focusMetres, float $confusionMm): array
    {
        $s = $focusMetres * 1000;
        $h = $focalMm * $focalMm / ($fStop * $confusionMm) + $focalMm;
        $near = $s * ($h - $focalMm) / ($h + $s - 2 * $focalMm);
        $far = $s < $h ? $s * ($h - $focalMm) / ($h - $s) : INF;

        return [$near / 1000, $far / 1000];
    }
}
