<?php

declare(strict_types=1);

namespace App\Bench;

use App\Assets\BlobStore;
use App\Assets\StoredAssets;
use CrispReel\Core\Document\AssetRef;
use CrispReel\Core\Format\Gltf\GltfReader;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;
use CrispReel\Core\Rig\Figure;

/** The lowest vertices of a figure, skinned as they are drawn: what touches the ground, and whether it stays. */
final class Soles
{
    /** A vertex under this height at rest belongs to the sole; under TOUCHES it is on the ground. Metres. */
    private const SOLE = 0.006;

    private const TOUCHES = 0.003;

    /**
     * @param  list<array{array{float, float, float}, list<array{int, float}>}>  $vertices  place at rest; joints and weights
     * @param  list<float>  $rest  places of the joints at rest
     */
    private function __construct(private readonly Figure $figure, private readonly array $vertices, private readonly array $rest)
    {
    }

    public static function of(Figure $figure, AssetRef $asset, BlobStore $blobs, StoredAssets $assets): self
    {
        $gltf = GltfReader::read($blobs->get($asset->blob));

        /** @var list<int> $nodes a skin numbers its joints in its own order, the skeleton has parents first */
        $nodes = $assets->digest($asset)['jointNodes'] ?? [];
        $order = array_flip($nodes);

        /** @var array{joints: list<int>} $skin */
        $skin = $gltf->list('skins')[0];
        $low = [];
        foreach ($gltf->primitives() as [, $p]) {
            foreach (array_chunk($p['positions'], 3) as $i => $v) {
                if ($v[1] >= self::SOLE) {
                    continue;
                }
                $pairs = [];
                for ($k = 0; $k < 4; $k++) {
                    $w = $p['weights'][4 * $i + $k] ?? 0.0;
                    if ($w > 0.0) {
                        $pairs[] = [$order[$skin['joints'][$p['joints'][4 * $i + $k]]], $w];
                    }
                }
                $low[] = [[$v[0], $v[1], $v[2]], $pairs];
            }
        }

        return new self($figure, $low, $figure->skeleton->world($figure->skeleton->rotations)[0]);
    }

    /**
     * @param  iterable<list<float>>  $rows
     * @return array{float, float} farthest way of a vertex while it touches even ground, deepest sinking; metres
     */
    public function over(iterable $rows): array
    {
        $since = [];
        $worst = $deep = 0.0;
        foreach ($rows as $row) {
            foreach ($this->drawn($row) as $i => $v) {
                $deep = max($deep, -$v[1]);
                if ($v[1] >= self::TOUCHES) {
                    unset($since[$i]);
                } elseif (isset($since[$i])) {
                    $worst = max($worst, hypot($v[0] - $since[$i][0], $v[2] - $since[$i][2]));
                } else {
                    $since[$i] = $v;
                }
            }
        }

        return [$worst, $deep];
    }

    /**
     * @param  list<float>  $row
     * @return list<array{float, float, float}>
     */
    private function drawn(array $row): array
    {
        $s = $this->figure->skeleton;
        [$p, $q] = $s->world(array_slice($row, 3, 4 * $s->count()), [$row[0], $row[1], $row[2]], $this->figure->hips);
        $out = [];
        foreach ($this->vertices as [$v, $pairs]) {
            $sum = [0.0, 0.0, 0.0];
            foreach ($pairs as [$j, $w]) {
                $local = [$v[0] - $this->rest[3 * $j], $v[1] - $this->rest[3 * $j + 1], $v[2] - $this->rest[3 * $j + 2]];
                $sum = V3::addScaled(
                    $sum,
                    V3::add(
                        [$p[3 * $j], $p[3 * $j + 1], $p[3 * $j + 2]],
                        Q4::rotate([$q[4 * $j], $q[4 * $j + 1], $q[4 * $j + 2], $q[4 * $j + 3]], $local),
                    ),
                    $w,
                );
            }
            $out[] = $sum;
        }

        return $out;
    }
}
