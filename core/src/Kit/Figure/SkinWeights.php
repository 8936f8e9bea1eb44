<?php

declare(strict_types=1);

namespace CrispReel\Core\Kit\Figure;

use CrispReel\Core\Math\V3;

/**
 * Weights by distance to the bones' surfaces: each bone is a capsule as thick as its limb; the nearest bone, its parent
 * and its children share a point by exp(-(d - dmin) / softness).
 *
 * @phpstan-type Vec array{float, float, float}
 * @phpstan-type Weights array<string, float>
 */
final class SkinWeights
{
    /** @var array<string, array{Vec, Vec, float, float}> from, to, radius at both ends */
    private array $bones = [];

    public function __construct(private readonly Body $body)
    {
        $s = $body->spec;
        $at = $body->at(...);
        $this->bones = [
            'hips' => [V3::add($at('hips'), [0.0, -0.05, 0.0]), $at('spine'), $s->body(0.135, 0.19), $s->body(0.135, 0.19)],
            'spine' => [$at('spine'), $at('chest'), $s->body(0.125, 0.185), $s->body(0.125, 0.185)],
            'chest' => [$at('chest'), $at('upperChest'), $s->body(0.125, 0.185), $s->body(0.125, 0.185)],
            'upperChest' => [$at('upperChest'), V3::add($at('neck'), [0.0, -0.03, 0.0]), $s->body(0.115, 0.17), $s->body(0.115, 0.17)],
        ];
        $arm = $s->body(0.058, 0.074);
        foreach (['L', 'R'] as $side) {
            $this->limb($side, $arm);
        }
    }

    /**
     * @param  Vec  $p
     * @param  non-empty-list<string>  $names
     * @return Weights not normalised
     */
    public function at(array $p, array $names, float $softness = 0.022): array
    {
        $distances = [];
        foreach ($names as $n) {
            $distances[$n] = $this->distance($p, $n);
        }
        $least = min($distances);
        $near = (string) array_search($least, $distances, true);
        $joints = $this->body->joints;
        $weights = [];
        foreach ($distances as $n => $d) {
            $sibling = $joints[$n]['parent'] === $joints[$near]['parent'] && preg_match('/upperLeg|shoulder/', $n.$near) === 1;
            if ($n === $near || $joints[$n]['parent'] === $near || $joints[$near]['parent'] === $n || $sibling) {
                $w = exp(-($d - $least) / $softness);
                if ($w > 0.01) {
                    $weights[$n] = $w;
                }
            }
        }

        return $weights;
    }

    /**
     * The four largest, summing to 1.
     *
     * @param  Weights  $weights
     * @return Weights
     */
    public static function normalised(array $weights): array
    {
        arsort($weights);
        $weights = array_slice($weights, 0, 4, true);
        $sum = array_sum($weights);

        return array_map(static fn (float $w): float => $w / $sum, $weights);
    }

    /**
     * Laplacian passes over a mesh.
     *
     * @param  list<Weights>  $weights
     * @param  list<list<int>>  $neighbours
     * @return list<Weights>
     */
    public static function smoothed(array $weights, array $neighbours, int $passes): array
    {
        for ($pass = 0; $pass < $passes; $pass++) {
            $next = [];
            foreach ($weights as $i => $own) {
                $sum = [];
                foreach ($own as $n => $w) {
                    $sum[$n] = $w * 0.5;
                }
                $share = 0.5 / max(1, count($neighbours[$i]));
                foreach ($neighbours[$i] as $j) {
                    foreach ($weights[$j] as $n => $w) {
                        $sum[$n] = ($sum[$n] ?? 0.0) + $w * $share;
                    }
                }
                $next[] = $sum;
            }
            $weights = $next;
        }

        return array_map(self::normalised(...), $weights);
    }

    private function limb(string $side, float $arm): void
    {
        $at = $this->body->at(...);
        $b = &$this->bones;
        $b['shoulder'.$side] = [$at('shoulder'.$side), V3::mix($at('shoulder'.$side), $at('upperArm'.$side), 0.8), $arm * 0.8, $arm * 0.8];
        $b['upperArm'.$side] = [$at('upperArm'.$side), $at('lowerArm'.$side), $arm, $arm];
        $b['lowerArm'.$side] = [$at('lowerArm'.$side), $at('hand'.$side), $arm * 0.9, $arm * 0.9];
        $b['hand'.$side] = [$at('hand'.$side), V3::mix($at('hand'.$side), $at('middle1'.$side), 0.85), 0.03, 0.03];
        $b['upperLeg'.$side] = [$at('upperLeg'.$side), $at('lowerLeg'.$side), 0.09, 0.07];
        $b['lowerLeg'.$side] = [$at('lowerLeg'.$side), $at('foot'.$side), 0.065, 0.065];
        foreach (Body::FINGERS as $i => $finger) {
            $tip = $side === 'L' ? $this->body->fingers[$i][2] : V3::mirrored($this->body->fingers[$i][2]);
            $b[$finger.'1'.$side] = [$at($finger.'1'.$side), $at($finger.'2'.$side), 0.0125, 0.0125];
            $b[$finger.'2'.$side] = [$at($finger.'2'.$side), $tip, 0.012, 0.012];
        }
    }

    /** @param  Vec  $p */
    private function distance(array $p, string $bone): float
    {
        [$a, $b, $ra, $rb] = $this->bones[$bone];
        $q = V3::sub($p, $a);
        $d = V3::sub($b, $a);
        if (preg_match('/^(hips|spine|chest|upperChest)$/', $bone) === 1) {
            // A torso is flatter front to back.
            $q[2] /= 0.8;
            $d[2] /= 0.8;
        }
        $t = max(0.0, min(1.0, V3::dot($q, $d) / (V3::dot($d, $d) ?: 1.0)));

        return V3::length(V3::addScaled($q, $d, -$t)) - ($ra + ($rb - $ra) * $t);
    }
}
