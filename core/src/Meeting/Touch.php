<?php

declare(strict_types=1);

namespace CrispReel\Core\Meeting;

use CrispReel\Core\Math\Ease;

/**
 * A hand of one that touches the other: when, where and how. Times are seconds of the motion.
 */
final readonly class Touch
{
    /** Seconds before the contact in which a hand closes the last centimetres, and those centimetres for a person of 1.70 m. */
    private const CLOSING = 0.24;

    private const OFF = 0.055;

    /**
     * @param  string  $by  A or B
     * @param  string  $hand  L or R
     * @param  string  $on  a place of Spots on the other; "hand": the other's hand
     * @param  string  $side  of the other
     * @param  string  $how  flat, fist, grip
     * @param  float  $reach  when the hand sets out
     * @param  float  $from  when it touches, up to $until
     * @param  float  $gone  when the arm is its own again
     * @param  array{float, float, float}  $fingers  where they point: aside to the left of who touches, up, towards the other
     * @param  array{float, float, float}  $pole  where the elbow points, for the left arm: aside, up, ahead
     * @param  float  $along  metres from the wrist to what touches, for a person of 1.70 m
     * @param  bool  $strike  comes without slowing down
     * @param  float  $taps  times a second that the hand leaves the place for a moment and comes back
     * @param  bool  $optional  left out where the arm is too short
     * @param  bool  $ghost  goes to where the place was before anything began
     * @param  bool  $round  goes round the body: comes from aside
     */
    public function __construct(
        public string $by,
        public string $hand,
        public string $on,
        public string $side,
        public string $how,
        public float $reach,
        public float $from,
        public float $until,
        public float $gone,
        public array $fingers,
        public array $pole,
        public float $along,
        public bool $strike,
        public bool $round,
        public float $taps,
        public bool $ghost,
        public bool $optional,
    ) {
    }

    /** @param  array<mixed>  $s  as the sheets of pairs write it */
    public static function of(array $s): self
    {
        $text = static fn (mixed $v, string $else): string => is_string($v) ? $v : $else;
        $number = static fn (mixed $v, float $else): float => is_int($v) || is_float($v) ? (float) $v : $else;
        $vec = static fn (mixed $v, float $x, float $y, float $z): array => is_array($v)
            ? [$number($v[0] ?? null, $x), $number($v[1] ?? null, $y), $number($v[2] ?? null, $z)]
            : [$x, $y, $z];
        $how = $text($s['how'] ?? null, 'flat');

        return new self(
            $text($s['by'] ?? null, 'A'), $text($s['hand'] ?? null, 'R'), $text($s['on'] ?? null, 'hand'), $text($s['side'] ?? null, 'R'),
            $how, $number($s['reach'] ?? null, 0.4), $number($s['from'] ?? null, 1.0), $number($s['until'] ?? null, 2.0),
            $number($s['gone'] ?? null, 3.0), $vec($s['fingers'] ?? null, 0.0, 0.7, 0.7), $vec($s['pole'] ?? null, 0.5, -1.0, -0.2),
            $number($s['along'] ?? null, $how === 'grip' ? 0.075 : 0.06), ($s['strike'] ?? false) === true,
            ($s['round'] ?? false) === true,
            $number($s['taps'] ?? null, 0.0), ($s['ghost'] ?? false) === true,
            ($s['optional'] ?? false) === true,
        );
    }

    /** How far the arm is the touch's at a time, 0 to 1. */
    public function weight(float $t): float
    {
        $there = $this->strike ? $this->from : $this->from - self::CLOSING * 0.8;
        $u = Ease::clamp(($t - $this->reach) / max(0.05, $there - $this->reach));

        $in = $this->strike ? $u * $u * (2.2 - 1.2 * $u) : Ease::smoother($u);

        return min($in, 1.0 - Ease::smoother(($t - $this->until) / max(0.05, $this->gone - $this->until)));
    }

    /** How far a body is bent for it at a time, 0 to 1. */
    public function there(float $t): float
    {
        return Ease::smoother(($t - $this->reach) / max(0.05, $this->from - $this->reach))
            * (1.0 - Ease::smoother(($t - $this->until) / max(0.05, $this->gone - $this->until)));
    }

    /** How far the trunk lends itself to the arm at a time, 0 to 1: it is ahead of the hand by so many seconds. */
    public function lent(float $t, float $lead): float
    {
        return Ease::smoother(($t + $lead - $this->reach) / max(0.2, $this->from - $this->reach))
            * (1.0 - Ease::smoother(($t - $this->until - 0.08) / max(0.4, $this->gone - $this->until)));
    }

    /** How far the hand still is off the place it goes to, metres for a person of 1.70 m. */
    public function off(float $t): float
    {
        $in = 1.0 - Ease::smooth(($t - ($this->from - self::CLOSING)) / self::CLOSING);

        $tap = $this->taps > 0.0 && $this->holds($t) ? 0.7 * sin(M_PI * $this->taps * ($t - $this->from)) ** 2 : 0.0;

        return self::OFF * max($this->strike ? 0.0 : $in, $tap, Ease::smooth(($t - $this->until) / self::CLOSING));
    }

    public function holds(float $t): bool
    {
        return $t >= $this->from - 1e-6 && $t <= $this->until + 1e-6;
    }
}
