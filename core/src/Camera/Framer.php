<?php

declare(strict_types=1);

namespace CrispReel\Core\Camera;

use CrispReel\Core\Document\Framing;

/** A framing and those whom it is about, as they are at its moment, to where the camera stands. */
final class Framer
{
    /** Parts of the picture that a thing fills, by size: the tighter ones show less than all of it. */
    private const THING = [1.9, 1.5, 1.2, 0.86, 0.72, 0.58, 0.34, 0.22];

    /** The same for a hand. */
    private const HAND = [0.95, 0.75, 0.55, 0.38, 0.28, 0.2, 0.14, 0.1];

    /** @param  list<Marks>  $with  the others who are framed, the partner first */
    public static function solve(Framing $f, Marks $subject, array $with, Gate $gate): Aim|Refusal
    {
        $aim = self::solved($f, $subject, $with, $gate);

        return $aim instanceof Aim && $f->shift !== [0.0, 0.0, 0.0] ? $aim->shifted($f->shift) : $aim;
    }

    /** @param  list<Marks>  $with */
    private static function solved(Framing $f, Marks $subject, array $with, Gate $gate): Aim|Refusal
    {
        $partner = $f->partner === null ? null : $with[0] ?? null;
        if ($partner !== null && $f->kind === 'overShoulder') {
            $size = OverShoulder::fits($f->size) ? $f->size : 'medium';

            return OverShoulder::solve($subject, $partner, $size, $f->sideDeg, $f->focalMm, $gate);
        }
        if ($partner !== null && $f->kind === 'together') {
            return self::together($f, $subject, $with, $gate);
        }
        // Who talks with somebody is seen from the line to the other, wherever the head is turned at the moment.
        if ($partner !== null) {
            [$a, $b] = [$subject->middle('eyes'), $partner->middle('eyes')];
            $apart = hypot($b[0] - $a[0], $b[2] - $a[2]);
            $subject = $apart > 0.05 ? $subject->turned(atan2($b[0] - $a[0], $b[2] - $a[2])) : $subject;
        }

        $hand = $f->part === 'face' ? [] : $subject->hand($f->part);
        if ($hand !== []) {
            $share = self::HAND[(int) array_search($f->size, Framing::SIZES, true)];

            return self::boxed($f, $hand, self::around($share), $subject, $gate);
        }

        return match ($subject->posture) {
            Marks::THING => self::thing($f, $subject, $gate),
            Marks::LYING => self::lying($f, $subject, $gate),
            default => self::upright($f, $subject, $gate),
        };
    }

    private static function thing(Framing $f, Marks $subject, Gate $gate): Aim
    {
        $share = self::THING[(int) array_search($f->size, Framing::SIZES, true)];

        return self::boxed($f, $subject->of('body'), self::around($share), $subject, $gate);
    }

    private static function upright(Framing $f, Marks $subject, Gate $gate): Aim
    {
        $size = ShotSize::named($f->size, $subject->posture);
        $side = deg2rad($f->sideDeg);

        return (new CutLines($subject, $size, $f->focalMm, $gate))
            ->solve($subject->facing + $side, $f->room * $size->lookRoom * sin($side), $f->height);
    }

    /** Who lies is framed by three sizes: the head, down to the belt, all. */
    private static function lying(Framing $f, Marks $subject, Gate $gate): Aim
    {
        $points = match (true) {
            ShotSize::number($f->size) >= 4 => [...$subject->of('crown'), ...$subject->of('chin'), ...$subject->of('shoulders')],
            ShotSize::number($f->size) >= 2 => [...$subject->of('crown'), ...$subject->of('shoulders'), ...$subject->of('belt')],
            default => $subject->of('body'),
        };

        $share = ['wide' => 0.5, 'veryWide' => 0.35][$f->size] ?? 0.84;

        return self::boxed($f, $points, self::around($share), $subject, $gate);
    }

    /**
     * @param  list<array{float, float, float}>  $points
     * @param  array{float, float, float, float}  $box
     */
    private static function boxed(Framing $f, array $points, array $box, Marks $subject, Gate $gate): Aim
    {
        $rise = deg2rad(CutLines::RISE[$f->height] ?? ($f->height === 'floor' ? 0.0 : 6.0));
        $height = $f->height === 'floor' ? $subject->lowest() + 0.12 : null;

        return BoxFit::solve($points, $box, $subject->facing + deg2rad($f->sideDeg), $rise, $f->focalMm, $gate, $height);
    }

    /**
     * Two or more in one picture, seen from degrees off the line between the first two: 90 is square to it.
     *
     * @param  list<Marks>  $with
     */
    private static function together(Framing $f, Marks $a, array $with, Gate $gate): Aim
    {
        [$p, $q] = [$a->middle('eyes'), $with[0]->middle('eyes')];
        $all = [$a, ...$with];
        $line = atan2($q[0] - $p[0], $q[2] - $p[2]);
        $size = ShotSize::named($f->size);
        $points = [];
        foreach ($all as $m) {
            array_push($points, ...$m->of('crown'), ...$m->of('mass'));
            array_push($points, ...($size->number >= 2 ? $m->of($size->bottom) : $m->of('body')));
        }
        $low = $size->bottomAt < -0.99 ? -1.0 : $size->bottomAt;
        $rise = deg2rad(CutLines::RISE[$f->height] ?? 0.0);
        $height = match ($f->height) {
            'level' => max(0.3, array_sum(array_map(static fn (Marks $m): float => $m->middle('eyes')[1], $all)) / count($all)
                - ($size->number >= 3 ? 0.05 : 0.35)),
            'floor' => min(array_map(static fn (Marks $m): float => $m->lowest(), $all)) + 0.12,
            default => null,
        };

        $box = [-0.80, 0.80, $low, min(0.86, $size->topAt)];

        return BoxFit::solve($points, $box, $line + deg2rad($f->sideDeg), $rise, $f->focalMm, $gate, $height);
    }

    /** @return array{float, float, float, float} */
    private static function around(float $share): array
    {
        return [-$share, $share, -$share, $share];
    }
}
