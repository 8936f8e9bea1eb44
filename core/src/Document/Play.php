<?php

declare(strict_types=1);

namespace CrispReel\Core\Document;

use CrispReel\Core\Math\Ease;

/** How a beat plays its motion: all that is set apart from trim, speed and loops. The defaults change nothing. */
final readonly class Play
{
    public const PARTS = ['face', 'head', 'trunk', 'armL', 'armR', 'legs'];

    public const ANCHORS = ['foot', 'hips'];

    /** Time curves by name as cubic-bezier(x1, y1, x2, y2); the last two run past the ends and come back. */
    public const EASES = Ease::NAMED + ['anticipate' => [0.36, -0.35, 0.66, 1.0], 'overshoot' => [0.34, 0.0, 0.64, 1.35]];

    /**
     * @param  array{float, float, float, float}|null  $ease  of the whole beat: share of its frames to share of its motion
     * @param  list<array{float, float}>  $speeds  frame of the beat and speed factor; between them it changes evenly
     * @param  int  $holdBefore  frames of the first pose
     * @param  int  $holdAfter  frames of the last pose
     * @param  int|null  $fill  repeats until this frame of the scene
     * @param  bool  $keepLooping  repeats until the next beat, or for as long as the scene lasts
     * @param  int  $skip  frames of the beat that are over before it begins (the later half of one that was split)
     * @param  int|null  $length  shows only so many frames
     * @param  float  $energy  1: as recorded; the upper body's deviation from its mean pose is scaled by this
     * @param  int  $layer  0: the body's own lane; above it beats are laid over
     * @param  list<string>  $mask  parts that a laid-over beat moves; empty: all
     * @param  string  $anchor  what stays in place where this beat carries on
     * @param  string  $with  beat of another performer that this one stands to as the motions were made; empty: none
     */
    public function __construct(
        public bool $mirror = false,
        public bool $reverse = false,
        public ?array $ease = null,
        public array $speeds = [],
        public int $holdBefore = 0,
        public int $holdAfter = 0,
        public ?int $fill = null,
        public bool $keepLooping = false,
        public int $skip = 0,
        public ?int $length = null,
        public float $armWidthDeg = 0.0,
        public float $energy = 1.0,
        public float $hipOffset = 0.0,
        public int $layer = 0,
        public array $mask = [],
        public float $weight = 1.0,
        public int $fadeIn = 6,
        public int $fadeOut = 6,
        public string $anchor = 'foot',
        public string $with = '',
    ) {
    }

    public static function from(Input $beat): self
    {
        $in = $beat->child('play');
        $mask = $in->choices('mask', self::PARTS);

        return new self(
            $in->yes('mirror'), $in->yes('reverse'), self::easeOf($in), self::speedsOf($in),
            $in->whole('holdBefore', 0, 0, 100_000), $in->whole('holdAfter', 0, 0, 100_000),
            $in->has('fill') ? $in->whole('fill', null, 1) : null, $in->yes('keepLooping'),
            $in->whole('skip', 0, 0, 1_000_000), $in->has('length') ? $in->whole('length', null, 1) : null,
            $in->number('armWidthDeg', 0.0, -40, 60), $in->number('energy', 1.0, 0.0, 2.0), $in->number('hipOffset', 0.0, -0.6, 0.2),
            $in->whole('layer', 0, 0, 8), $mask, $in->number('weight', 1.0, 0.0, 1.0), $in->whole('fadeIn', 6, 0, 240),
            $in->whole('fadeOut', 6, 0, 240),
            $in->choice('anchor', self::ANCHORS, 'foot'), $in->text('with', '', 64),
        );
    }

    /** @return array{float, float, float, float}|null */
    private static function easeOf(Input $in): ?array
    {
        if (! $in->has('ease')) {
            return null;
        }
        [$a, $b, $c, $d] = $in->numbers('ease', 4);
        if ($a < 0.0 || $a > 1.0 || $c < 0.0 || $c > 1.0 || abs($b) > 3.0 || abs($d) > 3.0) {
            throw UnableToReadDocument::at(
                $in->path('ease'),
                'the first and third number lie between 0 and 1, the others between -3 and 3',
            );
        }

        return [$a, $b, $c, $d];
    }

    /** @return list<array{float, float}> */
    private static function speedsOf(Input $in): array
    {
        $keys = $in->pairs('speeds', 500);
        foreach ($keys as $k => [$frame, $factor]) {
            if ($frame < 0 || ($k > 0 && $frame <= $keys[$k - 1][0]) || $factor < 0.0 || $factor > 20.0) {
                throw UnableToReadDocument::at(
                    $in->path("speeds/{$k}"),
                    'speed keys rise in time from the start of the beat, with factors from 0 to 20',
                );
            }
        }
        if ($keys !== [] && max(array_column($keys, 1)) <= 0.0) {
            throw UnableToReadDocument::at($in->path('speeds'), 'at least one speed is above zero');
        }

        return $keys;
    }

    /** @return array<string, mixed> only what differs from the defaults */
    public function toArray(): array
    {
        $plain = get_object_vars(new self);
        $out = [];
        foreach (get_object_vars($this) as $name => $value) {
            if ($value !== $plain[$name]) {
                $out[(string) $name] = $value;
            }
        }

        return $out;
    }
}
