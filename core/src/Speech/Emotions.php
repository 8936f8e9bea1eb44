<?php

declare(strict_types=1);

namespace CrispReel\Core\Speech;

/** What emotions look like: shapes of the face, and how head and eyes are held. */
final class Emotions
{
    public const NONE = 'none';

    public const NAMES = ['glad', 'sad', 'angry', 'afraid', 'surprised', 'disgusted', 'tender', 'doubtful', 'tired', 'pain'];

    /** Shapes; one without a side is of both. */
    private const SHAPES = [
        'glad' => [
            'cornerUp' => 1.0, 'cheek' => 0.3, 'squint' => 0.3, 'upperUp' => 0.3, 'jawOpen' => 0.25, 'browOutUp' => 0.35,
            'browInUp' => 0.2,
        ],
        'sad' => ['browInUp' => 1.1, 'cornerDown' => 0.9, 'chinUp' => 0.5, 'blink' => 0.26],
        'angry' => ['browDown' => 1.1, 'squint' => 0.35, 'cornerDown' => 0.75, 'press' => 0.5, 'chinUp' => 0.3, 'sneer' => 0.3],
        'afraid' => [
            'browInUp' => 1.1, 'browOutUp' => 0.2, 'wide' => 1.0, 'stretch' => 0.9, 'lowerDown' => 0.7, 'cornerDown' => 0.85,
            'jawOpen' => 0.2,
        ],
        'surprised' => ['browInUp' => 0.9, 'browOutUp' => 1.1, 'wide' => 0.9, 'jawOpen' => 0.55, 'funnel' => 0.75],
        'disgusted' => [
            'sneer' => 1.1, 'browDown' => 0.6, 'squint' => 0.7, 'cornerDown' => 0.9, 'chinUp' => 0.6, 'lowerDown' => 0.2,
        ],
        'tender' => ['cornerUp' => 0.6, 'browInUp' => 0.6, 'squint' => 0.3, 'cheek' => 0.2, 'blink' => 0.1],
        'doubtful' => [
            'browOutUpL' => 1.1, 'browInUpL' => 0.6, 'browDownR' => 0.9, 'squintR' => 0.5, 'squintL' => 0.1, 'mouthR' => 0.6,
            'cornerDownL' => 0.55, 'cornerDownR' => 0.25, 'pucker' => 0.3, 'press' => 0.4,
        ],
        'tired' => ['blink' => 0.6, 'browInUp' => 0.3, 'cornerDown' => 0.6, 'jawOpen' => 0.12],
        'pain' => [
            'browDown' => 0.9, 'browInUp' => 0.5, 'blinkL' => 1.0, 'blinkR' => 0.9, 'squint' => 1.0, 'cheek' => 0.8, 'stretch' => 0.8,
            'cornerDown' => 0.9, 'upperUp' => 0.8, 'lowerDown' => 0.9, 'sneer' => 0.6,
        ],
    ];

    /** Degrees of the head (yaw to its left, nose down, left side up) and of the eyes (to the left, down). */
    private const HELD = [
        'sad' => [0.0, 6.0, 0.0, 0.0, 8.0], 'angry' => [0.0, 6.0, 0.0, 0.0, -4.0], 'afraid' => [-5.0, -4.0, 0.0, 12.0, 0.0],
        'disgusted' => [-10.0, -5.0, 0.0, 8.0, 3.0], 'tender' => [0.0, 3.0, 8.0, 0.0, 0.0], 'doubtful' => [4.0, 0.0, -5.0, -8.0, 0.0],
        'tired' => [0.0, 9.0, 4.0, 0.0, 6.0], 'pain' => [6.0, -4.0, -6.0, 0.0, 0.0],
    ];

    private const SIDED = [
        'blink', 'wide', 'squint', 'browInUp', 'browOutUp', 'browDown', 'sneer', 'cheek', 'cornerUp', 'cornerDown', 'stretch',
    ];

    /** @return array<string, float> shapes of the face, each side by itself */
    public static function shapes(string $emotion): array
    {
        return self::sided(self::SHAPES[$emotion] ?? []);
    }

    /**
     * @param  array<string, float>  $shapes  one without a side is of both
     * @return array<string, float> each side by itself
     */
    public static function sided(array $shapes): array
    {
        $out = [];
        foreach ($shapes as $shape => $value) {
            foreach (in_array($shape, self::SIDED, true) ? [$shape.'L', $shape.'R'] : [$shape] as $name) {
                $out[$name] = $value;
            }
        }

        return $out;
    }

    /** @return array{float, float, float, float, float} degrees: head yaw, pitch, roll, eyes yaw, pitch */
    public static function held(string $emotion): array
    {
        return self::HELD[$emotion] ?? [0.0, 0.0, 0.0, 0.0, 0.0];
    }
}
