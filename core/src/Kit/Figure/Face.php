<?php

declare(strict_types=1);

namespace CrispReel\Core\Kit\Figure;

use CrispReel\Core\Math\Ease;
use CrispReel\Core\Math\V3;

/**
 * The shapes a face can take. Each is a change of the face at rest, so that any of them may be added to any others; L and R are
 * the figure's own sides.
 *
 * @phpstan-type Vec array{float, float, float}
 */
final class Face
{
    private const SIDED = [
        'stretch' => ['width' => 0.010],
        'cornerUp' => ['width' => 0.008, 'corner' => 0.014],
        'cornerDown' => ['corner' => -0.021],
        'sneer' => ['side' => 0.0055],
    ];

    /** What each shape adds to the mouth at rest, metres. */
    private const MOUTHS = [
        'jawOpen' => ['up' => 0.003, 'low' => 0.012, 'widthL' => -0.004, 'widthR' => -0.004, 'cornerL' => -0.007, 'cornerR' => -0.007],
        'press' => ['up' => -0.0014, 'low' => -0.0017, 'rollUp' => -0.5, 'rollLow' => -0.5, 'inside' => 0.003],
        'lowerIn' => ['up' => 0.007, 'low' => -0.0054, 'tuck' => 0.004, 'rollLow' => -0.35],
        'upperUp' => ['up' => 0.0055],
        'lowerDown' => ['low' => 0.007],
        'pucker' => [
            'widthL' => -0.018, 'widthR' => -0.018, 'forward' => 0.011, 'rollUp' => 0.4, 'rollLow' => 0.4, 'cornerL' => -0.007,
            'cornerR' => -0.007, 'teeth' => -1.0,
        ],
        'funnel' => [
            'widthL' => -0.014, 'widthR' => -0.014, 'forward' => 0.009, 'up' => 0.0035, 'low' => 0.0105, 'cornerL' => -0.009,
            'cornerR' => -0.009, 'rollUp' => 0.2, 'rollLow' => 0.2, 'teeth' => -0.7,
        ],
        'chinUp' => ['raise' => 0.006, 'rollLow' => 0.25],
        'mouthL' => ['aside' => 0.011],
        'mouthR' => ['aside' => -0.011],
    ];

    /** The tongue is drawn in a mouth that is open so far. */
    private const OPEN = ['up' => 0.0034, 'low' => 0.0090];

    private const TONGUES = [
        'tongueUp' => ['tongue' => 0.75, 'teeth' => -0.25],
        'tongueOut' => ['tongue' => 1.0, 'teeth' => -0.35, 'inside' => -0.0045],
    ];

    /** How far the chin drops (0 to 1), by shape. */
    private const CHINS = ['jawOpen' => 1.0, 'funnel' => 0.3, 'lowerDown' => 0.12, 'chinUp' => -0.31];

    /** How far a cheek goes up and out (0 to 1), by shape without its side. */
    private const CHEEKS = ['cornerUp' => 1.0, 'cornerDown' => -0.5, 'sneer' => 0.5, 'cheek' => 1.0];

    /** Degrees by which lids move at rest's edge (upper, lower) and tilt (the outer end upwards), by shape without its side. */
    public const LIDS = [
        'blink' => [-38.0, 14.0, 0.0], 'wide' => [19.0, -8.0, 0.0], 'squint' => [-6.0, 17.0, 0.0], 'cheek' => [0.0, 10.0, 0.0],
        'sneer' => [0.0, 6.0, 0.0], 'cornerUp' => [0.0, 5.0, 0.0], 'browInUp' => [0.0, 0.0, -11.0], 'browOutUp' => [5.0, 0.0, 3.0],
        'browDown' => [-9.0, 0.0, 11.0],
    ];

    /** Metres by which a brow's inner and outer end go up, its arch, and the inner end towards the nose; by shape without its side. */
    public const BROWS = [
        'browInUp' => [0.017, -0.004, 0.0, 0.003], 'browOutUp' => [0.003, 0.014, 0.006, 0.0], 'browDown' => [-0.019, -0.002, 0.0, 0.006],
        'sneer' => [-0.006, 0.0, 0.0, 0.0],
    ];

    public const MORPHS = [
        'blinkL', 'blinkR', 'wideL', 'wideR', 'squintL', 'squintR', 'browInUpL', 'browInUpR', 'browOutUpL', 'browOutUpR', 'browDownL',
        'browDownR', 'sneerL', 'sneerR', 'cheekL', 'cheekR', 'cornerUpL', 'cornerUpR', 'cornerDownL', 'cornerDownR', 'stretchL',
        'stretchR', 'jawOpen', 'seal', 'press', 'lowerIn', 'upperUp', 'lowerDown', 'funnel', 'pucker', 'chinUp', 'mouthL', 'mouthR',
        'tongueUp', 'tongueOut',
    ];

    /** Shapes by which the skin of the head itself moves. */
    public const OF_SKIN = [
        'jawOpen', 'funnel', 'lowerDown', 'chinUp', 'cornerUpL', 'cornerUpR', 'cornerDownL', 'cornerDownR', 'sneerL', 'sneerR', 'cheekL',
        'cheekR',
    ];

    /** @return array<string, array{MouthForm, MouthForm}> shapes that change the mouth: the one they are drawn in, and what it becomes */
    public static function mouths(): array
    {
        $rest = new MouthForm;
        $out = [];
        foreach (self::MOUTHS as $shape => $by) {
            $out[$shape] = [$rest, $rest->with($by)];
        }
        foreach (self::SIDED as $shape => $by) {
            foreach (['L', 'R'] as $side) {
                $sided = [];
                foreach ($by as $name => $d) {
                    $sided[$name.$side] = $d;
                }
                $out[$shape.$side] = [$rest, $rest->with($sided)];
            }
        }
        $open = $rest->with(self::OPEN);
        foreach (self::TONGUES as $shape => $by) {
            $out[$shape] = [$open, $open->with($by)];
        }

        return $out;
    }

    /**
     * How far a point of the head moves with a shape: cheeks swell with a smile, the chin drops with an open mouth.
     *
     * @param  Vec  $p  from the head's centre
     * @return Vec
     */
    public static function follow(string $shape, array $p): array
    {
        $out = [0.0, 0.0, 0.0];
        $side = str_ends_with($shape, 'L') ? 1.0 : -1.0;
        $kind = rtrim($shape, 'LR');
        $cheek = self::CHEEKS[$kind] ?? 0.0;
        if ($cheek !== 0.0) {
            $out = V3::mul([$side * 0.005, 0.010, 0.006], $cheek * self::near($p, [$side * 0.062, -0.045, 0.085], 0.028));
        }
        if ($kind === 'sneer') {
            $out = V3::addScaled($out, [$side * 0.005, 0.011, 0.0], self::near($p, [$side * 0.024, -0.036, 0.135], 0.016));
        }
        $chin = (self::CHINS[$shape] ?? 0.0) * Ease::between(-0.065, -0.12, $p[1]) * Ease::between(-0.03, 0.05, $p[2]);

        return V3::addScaled($out, [0.0, -0.026, -0.006], $chin);
    }

    /**
     * @param  Vec  $p
     * @param  Vec  $at
     */
    private static function near(array $p, array $at, float $wide): float
    {
        $e = V3::sub($p, $at);

        return exp(-V3::dot($e, $e) / (2.0 * $wide * $wide));
    }
}
