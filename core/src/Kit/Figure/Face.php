<?php

declare(strict_types=1);

namespace CrispReel\Core\Kit\Figure;

use CrispReel\Core\Math\Ease;
use CrispReel\Core\Math\V3;

/**
 * The shapes a face can take. Each mouth is drawn anew on the face ("replacement mouth"); cheeks and chin follow.
 *
 * @phpstan-type Vec array{float, float, float}
 */
final class Face
{
    public const REST = [0.034, 0.007, 0.0016, 0.0020];

    /** Half width, corner lift, upper and lower opening (metres), chin drop and cheek lift (0 to 1). */
    public const MOUTHS = [
        'smile' => [0.045, 0.019, 0.0010, 0.0055, 0.0, 1.0],
        'frown' => [0.036, -0.012, 0.0014, 0.0020, 0.0, -0.55],
        'aa' => [0.030, 0.002, 0.0080, 0.0200, 0.95, 0.0],
        'ee' => [0.043, 0.010, 0.0040, 0.0075, 0.25, 0.45],
        'ih' => [0.037, 0.007, 0.0040, 0.0085, 0.32, 0.15],
        'oh' => [0.023, 0.000, 0.0090, 0.0140, 0.60, -0.1],
        'oo' => [0.015, 0.000, 0.0060, 0.0075, 0.22, -0.25],
        'mbp' => [0.031, 0.004, 0.0001, 0.0003, -0.08, 0.0],
        'fv' => [0.034, 0.006, 0.0032, 0.0004, 0.05, 0.1],
        'el' => [0.032, 0.006, 0.0055, 0.0100, 0.42, 0.0],
    ];

    public const MORPHS = ['blinkL', 'blinkR', 'browsUp', 'browsDown', 'smile', 'frown', 'aa', 'ee', 'ih', 'oh', 'oo', 'mbp', 'fv', 'el'];

    /**
     * How far a point of the head moves with a shape: cheeks swell with a smile, the chin drops with an open mouth.
     *
     * @param  Vec  $p  from the head's centre
     * @return Vec
     */
    public static function follow(string $shape, array $p): array
    {
        $m = self::MOUTHS[$shape] ?? null;
        if ($m === null) {
            return [0.0, 0.0, 0.0];
        }
        $out = [0.0, 0.0, 0.0];
        foreach ($m[5] === 0.0 ? [] : [1.0, -1.0] as $side) {
            $e = V3::sub($p, [$side * 0.062, -0.045, 0.085]);
            $g = exp(-V3::dot($e, $e) / (2 * 0.028 * 0.028)) * $m[5];
            $out = V3::addScaled($out, [$side * 0.005, 0.010, 0.006], $g);
        }
        $chin = Ease::between(-0.065, -0.12, $p[1]) * Ease::between(-0.03, 0.05, $p[2]) * $m[4];

        return V3::addScaled($out, [0.0, -0.026, -0.006], $chin);
    }
}
