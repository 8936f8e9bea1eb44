<?php

declare(strict_types=1);

namespace CrispReel\Core\Coverage;

use CrispReel\Core\Camera\Aim;
use CrispReel\Core\Camera\OverShoulder;
use CrispReel\Core\Camera\Refusal;
use CrispReel\Core\Document\Framing;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;

/** What is tried for a framing at a moment, the most pleasing first: for pairs sizes and lenses together, for groups sides. */
final readonly class Arrangements
{
    public function __construct(private Stand $stand)
    {
    }

    /** @return iterable<Framing> what is tried, in this order */
    public function of(Framing $f): iterable
    {
        return match (true) {
            $f->kind === 'overShoulder' => $this->pairs($f),
            $f->kind === 'together' && count($f->with()) > 1 => $this->groups($f),
            default => Tries::of($f),
        };
    }

    /**
     * Sides from which a group is seen, those first from which fewest of them stand before another's face.
     *
     * @return list<Framing>
     */
    private function groups(Framing $f): array
    {
        $out = [...Tries::of($f)];
        $aim = $this->stand->solve($f);
        $middle = V3::mean(array_map(fn (string $who): array => $this->stand->marks($who)->middle('eyes'), $f->people()));
        $hidden = array_map(function (Framing $try) use ($f, $aim, $middle): int {
            if ($aim instanceof Refusal || $try->height !== $f->height || $try->focalMm !== $f->focalMm) {
                return count($f->people());
            }
            // About where it would stand: each try solved would take as long again.
            $turned = Q4::rotate(Q4::aroundY(deg2rad($try->sideDeg - $f->sideDeg)), V3::sub($aim->position, $middle));
            $lens = new Aim(V3::add($middle, $turned), $aim->yaw, $aim->pitch, $aim->focalMm);

            return count(array_filter($f->people(), fn (string $who): bool => $this->stand->clear($lens, $who, []) < 0.5));
        }, $out);
        $order = array_keys($out);
        usort($order, static fn (int $a, int $b): int => [$hidden[$a], $a] <=> [$hidden[$b], $b]);

        return array_map(static fn (int $n): Framing => $out[$n], $order);
    }

    /**
     * Sizes and lenses for one over the shoulder of the other, the most pleasing first.
     *
     * @return list<Framing>
     */
    private function pairs(Framing $f): array
    {
        $out = [];
        $costs = [];
        $listener = $f->partner === null ? null : $this->stand->marks($f->partner);
        foreach (['medium' => 0.0, 'mediumCloseUp' => 0.9, 'threeQuarter' => 1.4] as $size => $dear) {
            foreach ([50.0, 65.0, 40.0, 85.0] as $k => $lens) {
                $try = Tries::with($f, ['size' => $size, 'focalMm' => $lens]);
                $aim = $this->stand->solve($try);
                $out[] = $try;
                $cost = $aim instanceof Aim && $listener !== null ? OverShoulder::cost($aim, $listener, $this->stand->gate) : 1000.0;
                $costs[] = $dear + 0.12 * $k + $cost;
                if ($costs[count($costs) - 1] < 1.0) {
                    break 2;
                }
            }
        }
        array_multisort($costs, $out);

        return $out;
    }
}
