<?php

declare(strict_types=1);

namespace CrispReel\Core\Coverage;

use Closure;
use CrispReel\Core\Camera\Aim;
use CrispReel\Core\Camera\CameraPose;
use CrispReel\Core\Camera\Gate;
use CrispReel\Core\Camera\Marks;
use CrispReel\Core\Math\Angle;
use CrispReel\Core\Math\Q4;

/**
 * What each candidate shows of each person over time, looked at every few frames: whether and where the head is in the picture, how
 * large, how much of the face, and whether something is in the way.
 *
 * A look is how well the person is seen (0 to 1), the place across the picture (2: not in it), the heading of the lens, and the height
 * of the head's top.
 *
 * @phpstan-type Seen array{float, float, float, float}
 */
final readonly class Watch
{
    /** Frames between two looks. */
    public const STEP = 8;

    /** Degrees of the face from the lens, and what a face turned so far is worth. */
    private const FACES = [80 => 1.0, 115 => 0.6, 181 => 0.25];

    /** @param  array<int, array<int, array<string, Seen>>>  $seen  by candidate, look and person */
    private function __construct(private array $seen, private int $from)
    {
    }

    /**
     * @param  list<Candidate>  $candidates
     * @param  Closure(int): Stand  $at
     */
    public static function over(array $candidates, Action $action, Closure $at, Gate $gate): self
    {
        $out = [];
        for ($f = $action->from, $n = 0; $f <= $action->to; $f += self::STEP, $n++) {
            $stand = $at($f);
            foreach ($candidates as $k => $c) {
                if ($f < $c->from - self::STEP || $f > $c->to + self::STEP) {
                    continue;
                }
                $pose = $c->camera->at($f);
                foreach ($action->people as $who) {
                    $out[$k][$n][$who] = self::look($pose, $stand, $who, $c, $gate);
                }
            }
        }

        return new self($out, $action->from);
    }

    /** @return Seen */
    private static function look(CameraPose $pose, Stand $stand, string $who, Candidate $c, Gate $gate): array
    {
        $marks = $stand->face($who);
        $axis = Q4::rotate($pose->rotation, [0.0, 0.0, -1.0]);
        $yaw = atan2($axis[0], $axis[2]);
        [$x, $y, $depth] = $pose->project($marks->middle('eyes'), $gate->aspect);
        $top = $pose->project($marks->middle('skull'), $gate->aspect)[1];
        if ($depth <= 0.0 || abs($x) > 0.98 || abs($y) > 1.0) {
            return [0.0, 2.0, $yaw, $top];
        }
        $aim = new Aim($pose->position, $yaw, asin(max(-1.0, min(1.0, $axis[1]))), $pose->focalMm);
        $clear = $stand->clear($aim, $who, $c->framing->kind === 'single' ? [] : $c->about);
        $tall = ($top - $pose->project($marks->middle('chin'), $gate->aspect)[1]) / 2;

        return [($clear > 0.5 ? 1.0 : 0.3) * self::face($marks, $pose) * min(1.0, $tall / 0.1 + 0.25), $x, $yaw, $top];
    }

    private static function face(Marks $marks, CameraPose $pose): float
    {
        $eyes = $marks->middle('eyes');
        $to = atan2($pose->position[0] - $eyes[0], $pose->position[2] - $eyes[2]);
        $off = abs(rad2deg(Angle::wrapped($to - $marks->facing)));
        foreach (self::FACES as $most => $worth) {
            if ($off < (float) $most) {
                return $worth;
            }
        }

        return 0.25;
    }

    /** @return Seen */
    public function of(int $candidate, int $frame, string $who): array
    {
        $n = intdiv(max(0, $frame - $this->from), self::STEP);

        return $this->seen[$candidate][$n][$who] ?? [0.0, 2.0, 0.0, 0.0];
    }

    /** Whether a candidate was looked at at a frame: whether it holds there. */
    public function has(int $candidate, int $frame): bool
    {
        return isset($this->seen[$candidate][intdiv(max(0, $frame - $this->from), self::STEP)]);
    }
}
