<?php

declare(strict_types=1);

namespace CrispReel\Core\Meeting;

use CrispReel\Core\Math\Ease;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;
use CrispReel\Core\Motion\RecordedFeet;
use CrispReel\Core\Rig\Recording;
use CrispReel\Core\Rig\Skeleton;
use CrispReel\Core\Rig\Stance;

/**
 * Where and when the hands of a recording rest on the body that made it, or are together. Metres are those of a body with legs
 * of 0.85 m, stood upright; limbs are taken as thick as a usual body's.
 *
 * @phpstan-type Vec array{float, float, float}
 * @phpstan-type Spot array{side: string, part: string, from: int, to: int, along: float}
 */
final class RestingHands
{
    /** Parts of a body that hands rest on: joint, joint it leads to, thickness (metres of a body with legs of 0.85 m), drawn joints. */
    public const PARTS = [
        'waist' => [
            'hips', 'chest', 0.125, ['hips', 'spine', 'chest'],
        ], 'breast' => ['chest', 'neck', 0.13, ['spine', 'chest', 'upperChest']],
        'head' => ['head', null, 0.105, ['head', 'neck']], 'thighL' => ['upperLegL', 'lowerLegL', 0.078, ['upperLegL']],
        'thighR' => ['upperLegR', 'lowerLegR', 0.078, ['upperLegR']], 'upperArmL' => ['upperArmL', 'lowerArmL', 0.05, ['upperArmL']],
        'upperArmR' => ['upperArmR', 'lowerArmR', 0.05, ['upperArmR']], 'lowerArmL' => ['lowerArmL', 'handL', 0.042, ['lowerArmL']],
        'lowerArmR' => ['lowerArmR', 'handR', 0.042, ['lowerArmR']],
    ];

    /** From the wrist to the middle of the palm, metres. */
    public const PALM = 0.085;

    /** A palm so near to a part's surface and so slow against it rests on it, metres and metres a second. */
    private const NEAR = 0.055;

    private const SLOW = 0.25;

    /** Palms so near to each other touch. */
    public const TOGETHER = 0.095;

    private const LEAST_SECONDS = 0.12;

    /** @var list<array{array<string, Vec>, array<string, array{Vec, Vec}>}> by frame: palms, ends of parts */
    public array $seen = [];

    public function __construct(private readonly Recording $recording, private readonly float $rate, int $count)
    {
        [, $rest] = $recording->skeleton->world($recording->skeleton->rotations);
        $metre = RecordedFeet::LEG / max(1e-9, $recording->leg());
        for ($i = 0; $i < $count; $i++) {
            $this->seen[] = $this->look($i / $rate, $rest, $metre);
        }
    }

    /**
     * @param  list<float>  $rest
     * @return array{array<string, Vec>, array<string, array{Vec, Vec}>}
     */
    private function look(float $seconds, array $rest, float $metre): array
    {
        $r = $this->recording;
        [$p, $q] = $r->world($seconds);
        $at = static fn (string $role): array => V3::mul(Q4::rotate($r->upright, Stance::at($p, $r->roles[$role])), $metre);
        [$stood] = $r->skeleton->world($r->skeleton->rotations);
        $palms = $parts = [];
        foreach (['L', 'R'] as $s) {
            $j = $r->roles['hand'.$s];
            $made = Q4::mul(Skeleton::turnOf($q, $j), Q4::conjugate(Skeleton::turnOf($rest, $j)));
            $along = V3::unit(V3::sub(Stance::at($stood, $j), Stance::at($stood, $r->roles['lowerArm'.$s])));
            $palms[$s] = V3::addScaled($at('hand'.$s), Q4::rotate(Q4::mul($r->upright, $made), $along), self::PALM);
        }
        foreach (self::PARTS as $part => [$from, $to]) {
            if (! isset($r->roles[$from]) || ($to !== null && ! isset($r->roles[$to]))) {
                continue;
            }
            $a = $at($from);
            $parts[$part] = $to === null
                ? [$a, V3::addScaled($a, V3::unit(V3::sub($a, $at(isset($r->roles['neck']) ? 'neck' : 'hips'))), 0.14)]
                : [$a, $at($to)];
        }

        return [$palms, $parts];
    }

    /**
     * @return list<Spot> where and when a hand rests on the body
     */
    public function spots(): array
    {
        $out = [];
        foreach (['L', 'R'] as $side) {
            foreach (self::PARTS as $part => [, , $thick]) {
                if (str_ends_with($part, $side) && ! str_starts_with($part, 'thigh')) {
                    continue;
                }
                $from = null;
                /** @var list<float> $alongs */
                $alongs = [];
                $n = count($this->seen);
                for ($i = 0; $i <= $n; $i++) {
                    $near = $i < $n ? $this->resting($i, $side, $part, $thick) : null;
                    if ($near !== null) {
                        $from ??= $i;
                        $alongs[] = $near;
                    } elseif ($from !== null) {
                        if ($i - $from >= max(3.0, self::LEAST_SECONDS * $this->rate)) {
                            $out[] = [
                                'side' => $side,
                                'part' => $part,
                                'from' => $from,
                                'to' => $i,
                                'along' => array_sum($alongs) / count($alongs),
                            ];
                        }
                        [$from, $alongs] = [null, []];
                    }
                }
            }
        }

        return $this->best($out);
    }

    /**
     * Of parts that a hand rests on at once only the one it rests on longest.
     *
     * @param  list<Spot>  $spots
     * @return list<Spot>
     */
    private function best(array $spots): array
    {
        usort($spots, static fn (array $a, array $b): int => $b['to'] - $b['from'] <=> $a['to'] - $a['from']);
        $kept = [];
        foreach ($spots as $spot) {
            $other = array_filter(
                $kept, static fn (array $k): bool => $k['side'] === $spot['side'] && $k['from'] < $spot['to'] && $k['to'] > $spot['from'],
            );
            if ($other === []) {
                $kept[] = $spot;
            }
        }

        return $kept;
    }

    /** How far along a part a palm rests on it, 0 to 1; null: it does not. */
    private function resting(int $i, string $side, string $part, float $thick): ?float
    {
        [$palms, $parts] = $this->seen[$i];
        if (! isset($parts[$part]) || V3::distance($palms['L'], $palms['R']) < self::TOGETHER) {
            return null;
        }
        [$u, $off] = self::beside($palms[$side], ...$parts[$part]);
        if (V3::length($off) - $thick > self::NEAR) {
            return null;
        }
        $k = max(0, $i - 1);
        [$before] = [self::beside($this->seen[$k][0][$side], ...$this->seen[$k][1][$part])[1]];

        return $i > 0 && V3::distance($off, $before) * $this->rate > self::SLOW ? null : $u;
    }

    /**
     * @param  Vec  $p
     * @param  Vec  $a
     * @param  Vec  $b
     * @return array{float, Vec} share along a part, and from there to the point
     */
    public static function beside(array $p, array $a, array $b): array
    {
        $d = V3::sub($b, $a);
        $u = Ease::clamp(V3::dot(V3::sub($p, $a), $d) / max(1e-9, V3::dot($d, $d)));

        return [$u, V3::sub($p, V3::addScaled($a, $d, $u))];
    }
}
