<?php

declare(strict_types=1);

namespace CrispReel\Core\Cloth;

use CrispReel\Core\Document\AssetRef;
use CrispReel\Core\Document\AssetSource;
use CrispReel\Core\Format\Gltf\GltfReader;
use CrispReel\Core\Math\V3;
use CrispReel\Core\Rig\Figure;

/**
 * A figure's body as capsules from joint to joint, as thick as the drawn surface: three quarters of the vertices beside
 * it lie within. Ends are in the spaces of their joints at rest, so posed joints carry them.
 */
final class BodyShape
{
    private const LIMBS = [
        ['hips', 'chest'], ['chest', 'neck'], ['head', null], ['shoulderL', 'upperArmL'], ['shoulderR', 'upperArmR'],
        ['upperArmL', 'lowerArmL'], ['upperArmR', 'lowerArmR'],
        ['lowerArmL', 'handL'], ['lowerArmR', 'handR'], ['upperLegL', 'lowerLegL'], ['upperLegR', 'lowerLegR'], ['lowerLegL', 'footL'],
        ['lowerLegR', 'footR'],
    ];

    /** Share of a joint's vertices that the capsule contains. */
    private const WITHIN = 0.75;

    /**
     * @return list<array{int, int, float, float}> joint, joint, radius, and for a ball (a head) how far its middle is above the joint; metres of the file
     */
    public static function of(Figure $figure, AssetSource $assets, AssetRef $asset): array
    {
        $key = hash('sha256', "body|4|{$asset->blob}|".json_encode($figure->skeleton->roles, JSON_THROW_ON_ERROR));
        $kept = $assets->solved($key);
        if ($kept === null) {
            $kept = json_encode(self::measured($figure, $assets->blob($asset)), JSON_THROW_ON_ERROR);
            $assets->keep($key, $kept);
        }

        /** @var list<array{int, int, float, float}> $shape */
        $shape = json_decode($kept, true, 8, JSON_THROW_ON_ERROR);

        return $shape;
    }

    /** @return list<array{int, int, float, float}> */
    private static function measured(Figure $figure, string $glb): array
    {
        $points = self::byJoint(GltfReader::read($glb), $figure);
        $out = [];
        foreach (self::LIMBS as [$from, $to]) {
            $a = $figure->skeleton->roles[$from] ?? null;
            $b = $to === null ? $a : $figure->skeleton->roles[$to] ?? null;
            if ($a === null || $b === null) {
                continue;
            }
            $distances = [];
            [$p, $q] = [$figure->rest($from) ?? [0.0, 0.0, 0.0], $figure->rest($to ?? $from) ?? [0.0, 0.0, 0.0]];
            $own = $points[$a] ?? [];
            $rise = 0.0;
            if ($a === $b && $own !== []) {
                $rise = array_sum(array_column($own, 1)) / count($own) - $p[1];
                $p = $q = [$p[0], $p[1] + $rise, $p[2]];
            }
            foreach ($own as $v) {
                $distance = self::away($v, $p, $q);
                if ($distance !== null) {
                    $distances[] = $distance;
                }
            }
            sort($distances);
            $radius = $distances === [] ? 0.1 * V3::distance($p, $q) : $distances[(int) floor(self::WITHIN * (count($distances) - 1))];
            $out[] = [$a, $b, round($radius, 4), round($rise, 4)];
        }

        return $out;
    }

    /**
     * Vertices by the joint that moves them most. A joint between two named ones counts to the one above it.
     *
     * @return array<int, list<array{float, float, float}>>
     */
    private static function byJoint(GltfReader $gltf, Figure $figure): array
    {
        $named = array_flip(array_intersect_key(
            $figure->skeleton->roles,
            array_flip(array_merge(...array_map(static fn (array $l): array => array_filter($l), self::LIMBS))),
        ));
        $owner = static function (int $j) use ($named, $figure): int {
            while ($j >= 0 && ! isset($named[$j])) {
                $j = $figure->skeleton->parents[$j];
            }

            return $j;
        };
        // The skin's list of joints has an order of its own.
        $skin = $gltf->list('skins')[0] ?? [];
        $order = array_flip($gltf->joints(0));
        $listed = array_map(
            static fn (mixed $node): int => $order[is_int($node) ? $node : -1] ?? -1,
            is_array($skin['joints'] ?? null) ? array_values($skin['joints']) : [],
        );
        $out = [];
        foreach ($gltf->primitives() as [, $p]) {
            for ($v = 0, $n = intdiv(count($p['joints']), 4); $v < $n; $v++) {
                $most = 0;
                for ($k = 1; $k < 4; $k++) {
                    $most = $p['weights'][4 * $v + $k] > $p['weights'][4 * $v + $most] ? $k : $most;
                }
                $joint = $p['joints'][4 * $v + $most];
                $at = $owner($listed[$joint] ?? -1);
                if ($at >= 0) {
                    $out[$at][] = [$p['positions'][3 * $v], $p['positions'][3 * $v + 1], $p['positions'][3 * $v + 2]];
                }
            }
        }

        return $out;
    }

    /**
     * @param  array{float, float, float}  $v
     * @param  array{float, float, float}  $p
     * @param  array{float, float, float}  $q
     */
    private static function away(array $v, array $p, array $q): ?float
    {
        $along = V3::sub($q, $p);
        $length = V3::dot($along, $along);
        $t = $length < 1e-9 ? 0.0 : V3::dot(V3::sub($v, $p), $along) / $length;

        // A hem below the hips or a collar above the neck says nothing of how thick the trunk is.
        return $t < 0.0 || $t > 1.0 ? null : V3::distance($v, V3::addScaled($p, $along, $t));
    }
}
