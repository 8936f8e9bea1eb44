<?php

declare(strict_types=1);

namespace CrispReel\Core\Intake\Fitting;

use CrispReel\Core\Math\V3;
use CrispReel\Core\Rig\BodyFrame;

/**
 * The joints of a person, laid into a body by its eight markers. Rest rotations are none; each joint has the lines along
 * which it moves the body.
 *
 * @phpstan-type Vec array{float, float, float}
 */
final class SkeletonPlan
{
    private const PARENTS = [
        'hips' => '', 'spine' => 'hips', 'chest' => 'spine', 'upperChest' => 'chest', 'neck' => 'upperChest', 'head' => 'neck',
        'shoulder' => 'upperChest', 'upperArm' => 'shoulder', 'lowerArm' => 'upperArm', 'hand' => 'lowerArm',
        'upperLeg' => 'hips', 'lowerLeg' => 'upperLeg', 'foot' => 'lowerLeg', 'toes' => 'foot',
    ];

    /** Shares of the way from hips to neck. */
    private const TRUNK = ['spine' => 0.16, 'chest' => 0.40, 'upperChest' => 0.68];

    /** @var array<string, Vec> places of joints by name, parents first */
    public array $places = [];

    /** @var array<string, string> joint to parent; empty for the hips */
    public array $parents = [];

    /** @var array<string, list<array{Vec, Vec}>> lines of each joint */
    public array $lines = [];

    private function __construct(private readonly VoxelBody $body)
    {
    }

    public static function of(VoxelBody $body, Markers $markers, bool $fingers): self
    {
        $plan = new self($body);
        $p = $markers->places;
        $h = $body->height();
        $plan->joint('hips', '', $p['hips']);
        foreach (self::TRUNK as $name => $share) {
            $plan->joint($name, self::PARENTS[$name], V3::mix($p['hips'], $p['neck'], $share));
        }
        $plan->joint('neck', 'upperChest', $p['neck']);
        $top = $body->high[1];
        $plan->joint('head', 'neck', [
            $p['neck'][0], $p['neck'][1] + min(0.04 * $h, 0.25 * ($top - $p['neck'][1])), $p['neck'][2] + 0.004 * $h,
        ]);
        $plan->line('head', $plan->places['head'], [
            $p['neck'][0], max($top - 0.05 * $h, $plan->places['head'][1] + 0.02 * $h), $plan->places['head'][2] + 0.01 * $h,
        ]);
        // Both shoulders are equally far out.
        $shoulders = array_map(
            static fn (string $side): array => $plan->shoulder($p['wrist'.$side], $side === 'L' ? 1.0 : -1.0, $h, $p['neck']),
            ['L' => 'L', 'R' => 'R'],
        );
        $out = 0.5 * ($shoulders['L'][0] - $shoulders['R'][0]);
        foreach (['L' => 1.0, 'R' => -1.0] as $side => $m) {
            $plan->arm($side, $m, $p, [$p['neck'][0] + $m * $out, $shoulders[$side][1], $shoulders[$side][2]], $fingers);
            $plan->leg($side, $m, $p);
        }

        return $plan;
    }

    /** @param  Vec  $at */
    private function joint(string $name, string $parent, array $at): void
    {
        $this->places[$name] = $at;
        $this->parents[$name] = $parent;
        $this->lines[$name] = [];
        if ($parent !== '') {
            // What lies between two joints goes with the upper one; hips and chest have the trunk alone.
            $limb = preg_match('/^(upperLeg|shoulder)/', $name) === 1;
            if (! $limb) {
                $this->line($parent, $this->places[$parent], $at);
            }
        }
    }

    /**
     * @param  Vec  $from
     * @param  Vec  $to
     */
    private function line(string $name, array $from, array $to): void
    {
        $this->lines[$name][] = [$from, $to];
    }

    /**
     * @param  array<string, Vec>  $p  markers
     * @param  Vec  $upper
     */
    private function arm(string $side, float $m, array $p, array $upper, bool $fingers): void
    {
        $h = $this->body->height();
        [$neck, $wrist] = [$p['neck'], $p['wrist'.$side]];
        $elbow = V3::mix($upper, $wrist, 0.52);
        [$middle, $n] = $this->body->across($elbow, V3::unit(V3::sub($wrist, $upper)), 0.07 * $h, $this->body->cube);
        $elbow = $n > 0 ? $middle : $elbow;
        $this->joint('shoulder'.$side, 'upperChest', [$neck[0] + $m * 0.028 * $h, V3::mix($neck, $upper, 0.5)[1] - 0.004 * $h, $neck[2]]);
        $this->joint('upperArm'.$side, 'shoulder'.$side, $upper);
        $this->joint('lowerArm'.$side, 'upperArm'.$side, $elbow);
        $this->joint('hand'.$side, 'lowerArm'.$side, $wrist);
        $along = V3::unit(V3::sub($wrist, $elbow));
        $far = $this->hand($wrist, $along, $h);
        $this->line('hand'.$side, $wrist, V3::addScaled($wrist, $along, ($fingers ? 0.45 : 0.9) * $far));
        if ($fingers) {
            $this->fingers($side, $wrist, $along, $far);
        }
    }

    /**
     * Where the arm leaves the trunk: going inward, its cut suddenly grows.
     *
     * @param  Vec  $wrist
     * @param  Vec  $neck
     * @return Vec
     */
    private function shoulder(array $wrist, float $m, float $h, array $neck): array
    {
        $base = [$neck[0] + $m * 0.02 * $h, $neck[1] - 0.05 * $h, $neck[2]];
        $way = V3::sub($base, $wrist);
        $along = V3::unit($way);
        $cuts = [];
        for ($k = 4; $k < 24; $k++) {
            [$at, $n] = $this->body->across(V3::addScaled($wrist, $way, $k / 24), $along, 0.09 * $h, $this->body->cube * 0.75);
            $cuts[] = [$at, $n];
        }
        $usual = array_column(array_slice($cuts, 0, 8), 1);
        sort($usual);
        $found = null;
        foreach ($cuts as $k => [$at, $n]) {
            if ($k > 6 && $n > 1.7 * max(1, $usual[4])) {
                $found = $cuts[$k - 1][0];
                break;
            }
        }
        $found ??= V3::mix($wrist, $base, 0.8);
        $x = $m * max(0.055 * $h, min(0.105 * $h, ($found[0] - $neck[0]) * $m - 0.008 * $h));

        return [$neck[0] + $x, max($found[1], $neck[1] - 0.065 * $h), $found[2]];
    }

    /**
     * @param  Vec  $wrist
     * @param  Vec  $along
     * @return float how far the hand reaches from the wrist, metres
     */
    private function hand(array $wrist, array $along, float $h): float
    {
        $far = 0.03 * $h;
        foreach ($this->body->cubes() as $v) {
            $d = V3::sub($v, $wrist);
            $t = V3::dot($d, $along);
            if ($t > $far && V3::length($d) < 0.17 * $h && V3::length(V3::addScaled($d, $along, -$t)) < 0.08 * $h) {
                $far = $t;
            }
        }

        return $far;
    }

    /**
     * Four fingers side by side over the width of the hand, and a thumb at its forward edge.
     *
     * @param  Vec  $wrist
     * @param  Vec  $along
     */
    private function fingers(string $side, array $wrist, array $along, float $far): void
    {
        $spread = V3::across([0.0, 0.0, 1.0], $along);
        [$least, $most] = [0.0, 0.0];
        foreach ($this->body->cubes() as $v) {
            $d = V3::sub($v, $wrist);
            $t = V3::dot($d, $along);
            $w = V3::dot($d, $spread);
            if ($t > 0.5 * $far && $t <= $far && V3::length(V3::sub(
                $d,
                V3::add(V3::mul($along, $t), V3::mul($spread, $w)),
            )) < 0.5 * $far && abs($w) < 0.7 * $far) {
                [$least, $most] = [min($least, $w), max($most, $w)];
            }
        }
        $place = static fn (float $t, float $w): array => V3::add($wrist, V3::add(V3::mul($along, $t * $far), V3::mul($spread, $w)));
        foreach (array_slice(BodyFrame::FINGERS, 1, 4) as $k => $finger) {
            $w = $most + ($least - $most) * ($k + 0.5) / 4;
            $this->joint($finger.'1'.$side, 'hand'.$side, $place(0.5, $w));
            $this->joint($finger.'2'.$side, $finger.'1'.$side, $place(0.74, $w));
            $this->line($finger.'2'.$side, $place(0.74, $w), $place($k === 3 ? 0.9 : 0.98, $w));
        }
        $this->joint('thumb1'.$side, 'hand'.$side, $place(0.2, 0.6 * $most));
        $this->line('thumb1'.$side, $place(0.2, 0.6 * $most), $place(0.5, 1.25 * $most));
    }

    /** @param  array<string, Vec>  $p  markers */
    private function leg(string $side, float $m, array $p): void
    {
        $h = $this->body->height();
        [$hips, $knee, $ankle] = [$p['hips'], $p['knee'.$side], $p['ankle'.$side]];
        $out = max(0.035 * $h, min(0.09 * $h, 0.9 * ($knee[0] - $hips[0]) * $m));
        $this->joint('upperLeg'.$side, 'hips', [$hips[0] + $m * $out, $hips[1] - 0.012 * $h, $hips[2]]);
        $this->joint('lowerLeg'.$side, 'upperLeg'.$side, $knee);
        $this->joint('foot'.$side, 'lowerLeg'.$side, $ankle);
        $front = $ankle[2] + 0.06 * $h;
        foreach ($this->body->cut($this->body->low[1] + 0.025 * $h) as $piece) {
            foreach ($piece as $v) {
                if (abs($v[0] - $ankle[0]) < 0.07 * $h && $v[2] > $front && $v[2] < $ankle[2] + 0.3 * $h) {
                    $front = $v[2];
                }
            }
        }
        $ball = [$ankle[0], $this->body->low[1] + 0.018 * $h, $ankle[2] + 0.62 * ($front - $ankle[2])];
        $this->joint('toes'.$side, 'foot'.$side, $ball);
        $this->line('toes'.$side, $ball, [$ball[0], $ball[1], $front - 0.01 * $h]);
        // The heel goes with the foot.
        $this->line('foot'.$side, $ankle, [$ankle[0], $ball[1], $ankle[2] - 0.02 * $h]);
    }
}
