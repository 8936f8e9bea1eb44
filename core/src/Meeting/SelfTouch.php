<?php

declare(strict_types=1);

namespace CrispReel\Core\Meeting;

use CrispReel\Core\Math\Ease;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;
use CrispReel\Core\Motion\RecordedFeet;
use CrispReel\Core\Rig\Figure;
use CrispReel\Core\Rig\Posture;
use CrispReel\Core\Rig\Recording;

/**
 * Hands of a recording that touch each other or the own body, on another body: what touched in the source touches again, on
 * the drawn surface, wherever that is. A source has no surface; its limbs are taken as thick as a usual body's.
 *
 * @phpstan-type Vec array{float, float, float}
 * @phpstan-type Quat array{float, float, float, float}
 * @phpstan-import-type Spot from RestingHands
 */
final class SelfTouch
{
    /** Half of a hand's thickness, metres of a body with legs of 0.85 m. */
    private const THICK = 0.017;

    private const MOST_FRAMES = 20_000;

    private const EASE_SECONDS = 0.15;

    private readonly float $scale;

    private function __construct(
        private readonly RestingHands $hands, private readonly Figure $figure, private readonly Skin $skin, private readonly float $rate,
    ) {
        $leg = $figure->limb('leg', 'L');
        $this->scale = ($leg === null ? RecordedFeet::LEG : array_sum($figure->lengths($leg))) / RecordedFeet::LEG;
    }

    /**
     * @param  list<list<float>>  $rows
     * @return list<list<float>>
     */
    public static function applied(array $rows, Recording $recording, Figure $figure, Skin $skin, float $rate): array
    {
        foreach (['L', 'R'] as $s) {
            if ($figure->limb('arm', $s) === null || ! isset(
                $recording->roles['upperArm'.$s], $recording->roles['lowerArm'.$s], $recording->roles['hand'.$s],
            )) {
                return $rows;
            }
        }
        // What is seen of each frame is kept: of an hour it would be too much.
        if (count($rows) > self::MOST_FRAMES) {
            return $rows;
        }
        $touch = new self(new RestingHands($recording, $rate, count($rows)), $figure, $skin, $rate);
        foreach ($touch->hands->spots() as $spot) {
            $rows = $touch->laid($rows, $spot);
        }

        return $touch->together($rows);
    }

    /**
     * @param  list<list<float>>  $rows
     * @param  Spot  $spot
     * @return list<list<float>>
     */
    private function laid(array $rows, array $spot): array
    {
        [$first, $next, $thick, $drawn] = RestingHands::PARTS[$spot['part']];
        $j = $this->figure->skeleton->roles[$first] ?? null;
        if ($j === null) {
            return $rows;
        }
        // Which way the palm lies from the part, seen from the part, over the whole rest.
        $way = [0.0, 0.0, 0.0];
        for ($i = $spot['from']; $i < $spot['to']; $i++) {
            $off = RestingHands::beside($this->hands->seen[$i][0][$spot['side']], ...$this->hands->seen[$i][1][$spot['part']])[1];
            $way = V3::add($way, V3::unit(Q4::rotate(Q4::conjugate($this->turned($this->posture($rows[$i]), $j)), $off)));
        }
        if (V3::length($way) < 1e-6) {
            return $rows;
        }
        $way = V3::unit($way);
        $from = $this->figure->rest($first) ?? [0.0, 0.0, 0.0];
        $to = $next === null ? V3::add($from, [0.0, 0.14 * $this->scale, 0.0]) : $this->figure->rest($next) ?? $from;
        $foot = V3::mix($from, $to, $spot['along']);
        $far = $this->surface($foot, $way, $drawn) ?? $thick * $this->scale;
        $local = V3::sub(V3::addScaled($foot, $way, $far + self::THICK * $this->scale), $from);
        $ease = max(1.0, self::EASE_SECONDS * $this->rate);
        for ($i = max(0, (int) ($spot['from'] - $ease)); $i < min(count($rows), $spot['to'] + $ease); $i++) {
            $w = Ease::smooth(min(1.0, 1 - ($spot['from'] - $i) / $ease, 1 - ($i - $spot['to'] + 1) / $ease));
            $p = $this->posture($rows[$i]);
            $goal = V3::add($p->at($j)[0], Q4::rotate($this->turned($p, $j), $local));
            $rows[$i] = $this->palmTo($p, $spot['side'], $goal, $w);
        }

        return $rows;
    }

    /**
     * Palms that come together: as far apart as the source's are, less what lies between its wrists when they touch.
     *
     * @param  list<list<float>>  $rows
     * @return list<list<float>>
     */
    private function together(array $rows): array
    {
        $apart = array_map(static fn (array $s): float => V3::distance($s[0]['L'], $s[0]['R']), $this->hands->seen);
        $least = min([INF, ...$apart]);
        if ($least > RestingHands::TOGETHER) {
            return $rows;
        }
        foreach ($rows as $i => $row) {
            $w = Ease::smooth(1 - ($apart[$i] - RestingHands::TOGETHER) / 0.12);
            if ($w <= 0.0) {
                continue;
            }
            $p = $this->posture($row);
            [$l, $r] = [$this->palm($p, 'L'), $this->palm($p, 'R')];
            $between = V3::unit(V3::sub($this->hands->seen[$i][0]['L'], $this->hands->seen[$i][0]['R']));
            $half = (self::THICK + 0.5 * max(0.0, $apart[$i] - $least)) * $this->scale;
            $middle = V3::mul(V3::add($l, $r), 0.5);
            $row = $this->palmTo($p, 'L', V3::addScaled($middle, $between, $half), $w);
            $rows[$i] = $this->palmTo($this->posture($row), 'R', V3::addScaled($middle, $between, -$half), $w);
        }

        return $rows;
    }

    /** @param  list<float>  $row */
    private function posture(array $row): Posture
    {
        return new Posture($this->figure->skeleton, $this->figure->hips, $row);
    }

    /** @return Quat turn that a joint has made from rest */
    private function turned(Posture $p, int $joint): array
    {
        return Q4::mul($p->at($joint)[1], Q4::conjugate($this->figure->restTurn($joint)));
    }

    /** @return Vec from the wrist to the middle of the palm */
    private function reachOf(Posture $p, string $side): array
    {
        $hand = $this->figure->skeleton->roles['hand'.$side];
        $along = V3::unit(
            V3::sub($this->figure->rest('hand'.$side) ?? [0.0, -1.0, 0.0], $this->figure->rest('lowerArm'.$side) ?? [0.0, 0.0, 0.0]),
        );

        return V3::mul(Q4::rotate($this->turned($p, $hand), $along), RestingHands::PALM * $this->scale);
    }

    /** @return Vec */
    private function palm(Posture $p, string $side): array
    {
        return V3::add($p->at($this->figure->skeleton->roles['hand'.$side])[0], $this->reachOf($p, $side));
    }

    /**
     * @param  Vec  $goal
     * @return list<float>
     */
    private function palmTo(Posture $p, string $side, array $goal, float $weight): array
    {
        $arm = $this->figure->limb('arm', $side);
        if ($arm === null || $weight <= 0.0) {
            return $p->result();
        }
        [$wrist, $turn] = $p->at($arm[2]);
        $to = V3::mix($wrist, V3::sub($goal, $this->reachOf($p, $side)), $weight);
        [$a, $b] = [$p->at($arm[0])[0], $p->at($arm[1])[0]];
        $bent = V3::cross(V3::unit(V3::sub($b, $a)), V3::unit(V3::sub($wrist, $b)));
        $own = Q4::rotate($this->turned($p, $arm[0]), V3::cross(
            V3::sub($this->figure->rest('lowerArm'.$side) ?? [0.0, -1.0, 0.0], $this->figure->rest('upperArm'.$side) ?? [0.0, 0.0, 0.0]),
            [0.0, 0.0, 1.0],
        ));
        $p->reach($arm[0], $arm[1], $arm[2], $to, $turn, V3::length($bent) > 0.1 ? $bent : $own);

        return $p->result();
    }

    /**
     * How far the drawn surface of a part is from a point inside it, at rest.
     *
     * @param  Vec  $from
     * @param  Vec  $way  unit
     * @param  list<string>  $roles
     */
    private function surface(array $from, array $way, array $roles): ?float
    {
        $triangles = $this->skin->patch($roles);
        $rest = $this->posture([...$this->figure->skeleton->restTranslation($this->figure->hips), ...$this->figure->skeleton->rotations]);
        $points = $this->skin->posed(array_unique(array_merge([], ...$triangles)), $rest);
        $relief = new Relief($points, $triangles, $from, $way, 0.05, 0.3);
        $heights = array_filter(
            array_map(
                static fn (array $at): ?float => $relief->height($at[0], $at[1]),
                [[0.0, 0.0], [0.015, 0.0], [-0.015, 0.0], [0.0, 0.015], [0.0, -0.015]],
            ),
            static fn (?float $h): bool => $h !== null && $h > 0.0 && $h < 0.4,
        );

        return $heights === [] ? null : max($heights);
    }
}
