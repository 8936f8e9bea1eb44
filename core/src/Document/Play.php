<?php

declare(strict_types=1);

namespace CrispReel\Core\Document;

use CrispReel\Core\Document\Fields\Checked;
use CrispReel\Core\Document\Fields\Choice;
use CrispReel\Core\Document\Fields\Choices;
use CrispReel\Core\Document\Fields\FieldList;
use CrispReel\Core\Document\Fields\Frame;
use CrispReel\Core\Document\Fields\Frames;
use CrispReel\Core\Document\Fields\Number;
use CrispReel\Core\Document\Fields\Numbers;
use CrispReel\Core\Document\Fields\OfFields;
use CrispReel\Core\Document\Fields\Pairs;
use CrispReel\Core\Document\Fields\Text;
use CrispReel\Core\Document\Fields\Whole;
use CrispReel\Core\Document\Fields\Yes;
use CrispReel\Core\Math\Ease;

/** How a beat plays its motion: all that is set apart from trim, speed and loops. The defaults change nothing. */
final readonly class Play implements Checked
{
    use OfFields;

    public const PARTS = ['face', 'head', 'trunk', 'armL', 'armR', 'legs'];

    public const ANCHORS = ['foot', 'hips'];

    public const STANCES = ['fit', 'own'];

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
     * @param  string  $on  item that the beat is done on, and along with: a bicycle is got on, ridden, got off; empty: none
     * @param  string  $stance  fit: who sits does it seated, or rises for it before; own: as the motion is, whatever was before
     */
    public function __construct(
        #[Yes] public bool $mirror = false,
        #[Yes] public bool $reverse = false,
        #[Numbers(4)] public ?array $ease = null,
        #[Pairs(500, frames: true)] public array $speeds = [],
        #[Frames(0, 100_000)] public int $holdBefore = 0,
        #[Frames(0, 100_000)] public int $holdAfter = 0,
        #[Frame(1)] public ?int $fill = null,
        #[Yes] public bool $keepLooping = false,
        #[Frames(0, 1_000_000)] public int $skip = 0,
        #[Frames(1, 1_000_000)] public ?int $length = null,
        #[Number(-40, 60, 'deg')] public float $armWidthDeg = 0.0,
        #[Number(0, 2)] public float $energy = 1.0,
        #[Number(-0.6, 0.2, 'm')] public float $hipOffset = 0.0,
        #[Whole(0, 8)] public int $layer = 0,
        #[Choices(self::PARTS)] public array $mask = [],
        #[Number(0, 1)] public float $weight = 1.0,
        #[Frames(0, 240)] public int $fadeIn = 6,
        #[Frames(0, 240)] public int $fadeOut = 6,
        #[Choice(self::ANCHORS)] public string $anchor = 'foot',
        #[Text(64)] public string $with = '',
        #[Text(64)] public string $on = '',
        #[Choice(self::STANCES)] public string $stance = 'fit',
    ) {
    }

    public function check(Input $in): void
    {
        $this->checkEase($in);
        foreach ($this->speeds as $k => [$frame, $factor]) {
            if ($frame < 0 || ($k > 0 && $frame <= $this->speeds[$k - 1][0]) || $factor < 0.0 || $factor > 20.0) {
                throw UnableToReadDocument::at(
                    $in->path("speeds/{$k}"),
                    'speed keys rise in time from the start of the beat, with factors from 0 to 20',
                );
            }
        }
        if ($this->speeds !== [] && max(array_column($this->speeds, 1)) <= 0.0) {
            throw UnableToReadDocument::at($in->path('speeds'), 'at least one speed is above zero');
        }
    }

    private function checkEase(Input $in): void
    {
        if ($this->ease === null) {
            return;
        }
        [$a, $b, $c, $d] = $this->ease;
        if ($a < 0.0 || $a > 1.0 || $c < 0.0 || $c > 1.0 || abs($b) > 3.0 || abs($d) > 3.0) {
            throw UnableToReadDocument::at(
                $in->path('ease'),
                'the first and third number lie between 0 and 1, the others between -3 and 3',
            );
        }
    }

    /** @return array<string, mixed> only what differs from the defaults */
    public function toArray(): array
    {
        return FieldList::differing($this);
    }
}
