<?php

declare(strict_types=1);

namespace CrispReel\Core\Kit\Figure;

use CrispReel\Core\Math\Ease;

/**
 * A mouth as it is drawn: metres from the middle of the face, each side by itself. The form at rest is what a figure is made
 * with; every shape of the face is a change of it.
 */
final readonly class MouthForm
{
    /** How far the edge of the upper teeth lies under the mouth's rest line: they hang from the skull, whatever lips do. */
    private const TEETH = 0.0062;

    /**
     * @param  float  $widthL  half width on the left
     * @param  float  $cornerL  how far the left corner lies above the middle
     * @param  float  $up  how far the upper lip's middle lies above the line, $low how far the lower one's below it
     * @param  float  $raise  the whole of the middle upwards, $aside to the left
     * @param  float  $forward  lips before the face
     * @param  float  $rollUp  thickness of the upper lip over that at rest, $rollLow of the lower one
     * @param  float  $tuck  how far the lower lip lies back under the teeth
     * @param  float  $inside  how far the mouth's inside lies back
     * @param  float  $teeth  share of the upper teeth that shows
     * @param  float  $tongue  how far the tongue fills the opening, 0 to 1
     * @param  float  $sideL  the upper lip's left half upwards
     */
    public function __construct(
        public float $widthL = 0.034, public float $widthR = 0.034, public float $cornerL = 0.007, public float $cornerR = 0.007,
        public float $up = 0.0016, public float $low = 0.0020, public float $raise = 0.0, public float $aside = 0.0,
        public float $forward = 0.0, public float $rollUp = 1.0, public float $rollLow = 1.0, public float $tuck = 0.0,
        public float $inside = 0.0, public float $teeth = 1.0, public float $tongue = 0.0, public float $sideL = 0.0,
        public float $sideR = 0.0,
    ) {
    }

    /** @param  array<string, float>  $by  what is added to which of the values */
    public function with(array $by): self
    {
        /** @var array<string, float> $values */
        $values = get_object_vars($this);
        foreach ($by as $name => $d) {
            $values[$name] += $d;
        }

        return new self(...$values);
    }

    /** @param  float  $u  -1 the right corner, 1 the left one */
    public function x(float $u): float
    {
        return ($u >= 0.0 ? $this->widthL : $this->widthR) * $u + $this->aside * (1.0 - 0.35 * $u * $u);
    }

    /** Height of a lip's line over the middle of the mouth at rest. */
    public function y(float $u, bool $upper): float
    {
        $open = max(0.0, 1.0 - $u * $u) ** 0.75;
        $side = $u >= 0.0 ? $this->sideL : $this->sideR;

        return ($u >= 0.0 ? $this->cornerL : $this->cornerR) * $u * $u + $this->raise * (1.0 - $u * $u)
            + ($upper ? $this->up * $open + $side * Ease::between(0.0, 0.55, abs($u)) * $open : -$this->low * $open);
    }

    /**
     * Heights of the six rows that the mouth's inside is drawn with: teeth from the lip to their edge, the dark below them, the
     * tongue down to the lower lip.
     *
     * @return list<float>
     */
    public function rows(float $u): array
    {
        $top = $this->y($u, true) + 0.001;
        $low = min($top, $this->y($u, false) - 0.001);
        $edge = Ease::clamp($top - ($top - (0.007 * $u * $u - self::TEETH)) * $this->teeth, $low, $top);
        $rest = $low + 0.30 * max(0.0, $edge - $low);
        $tongue = $rest + $this->tongue * max(0.0, $edge - 0.001 - $rest);

        return [$top, $edge, max($low, $edge - 0.0008), max($low, min($edge - 0.0008, $tongue + 0.0008)), max($low, $tongue), $low];
    }
}
