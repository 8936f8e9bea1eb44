<?php

declare(strict_types=1);

namespace CrispReel\Core\Camera;

use CrispReel\Core\Document\AssetRef;
use CrispReel\Core\Document\AssetSource;
use CrispReel\Core\Math\Placement;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Rig\Figure;

/**
 * Points of a figure's drawn surface by which it is framed, each with the joints that move it and their shares: what the
 * edges of a picture cut, told from some hundred points in place of all vertices.
 */
final readonly class Landmarks
{
    /**
     * @param  array<string, list<list<int|float>>>  $points  by mark; a point is joint, share and place in the joint's space (3), again
     *                                                         for each joint that moves it
     */
    private function __construct(private array $points)
    {
    }

    /** Measured once a file. */
    public static function of(Figure $figure, AssetSource $assets, AssetRef $asset): self
    {
        $key = hash('sha256', "landmarks|2|{$asset->blob}|".json_encode($figure->skeleton->roles, JSON_THROW_ON_ERROR));
        $kept = $assets->solved($key);
        if ($kept === null) {
            $kept = json_encode((new Surveyor($figure, $assets->blob($asset)))->points(), JSON_THROW_ON_ERROR);
            $assets->keep($key, $kept);
        }

        /** @var array<string, list<list<int|float>>> $points */
        $points = json_decode($kept, true, 8, JSON_THROW_ON_ERROR);

        return new self($points);
    }

    /**
     * Where they are in a pose, skinned as the picture skins: each joint's place of the point, mixed by shares.
     *
     * @param  Placement  $place  of the figure in the scene
     * @param  list<float>  $row  hips x y z, then four numbers a joint
     * @param  list<string>|null  $only  marks that are wanted; null: all
     */
    public function posed(Figure $figure, Placement $place, array $row, ?array $only = null): Marks
    {
        $s = $figure->skeleton;
        [$p, $q] = $s->world(array_slice($row, 3, 4 * $s->count()), [$row[0], $row[1], $row[2]], $figure->hips);
        $joints = self::matrices($place, $p, $q);
        $out = [];
        foreach ($only === null ? $this->points : array_intersect_key($this->points, array_flip($only)) as $mark => $points) {
            foreach ($points as $of) {
                $x = $y = $z = 0.0;
                for ($i = 0, $n = count($of); $i < $n; $i += 5) {
                    $m = $joints[(int) $of[$i]];
                    [$w, $a, $b, $c] = [$of[$i + 1], $of[$i + 2], $of[$i + 3], $of[$i + 4]];
                    $x += $w * ($m[0] * $a + $m[1] * $b + $m[2] * $c + $m[3]);
                    $y += $w * ($m[4] * $a + $m[5] * $b + $m[6] * $c + $m[7]);
                    $z += $w * ($m[8] * $a + $m[9] * $b + $m[10] * $c + $m[11]);
                }
                $out[$mark][] = [$x, $y, $z];
            }
        }
        $roles = [];
        foreach ($s->roles as $role => $j) {
            $roles[$role] = $place->point([$p[3 * $j], $p[3 * $j + 1], $p[3 * $j + 2]]);
        }

        return Marks::ofPerson($out, $roles, self::faces($figure, $place, $q), self::upright($figure, $place));
    }

    /**
     * Heading of the face, radians: between the head's and the chest's.
     *
     * @param  list<float>  $q  world rotations of all joints
     */
    private static function faces(Figure $figure, Placement $place, array $q): float
    {
        $sum = [0.0, 0.0];
        foreach (['head' => 0.7, 'upperChest' => 0.2, 'hips' => 0.1] as $role => $share) {
            $j = $figure->skeleton->roles[$role] ?? null;
            if ($j !== null) {
                $ahead = Q4::rotate(
                    Q4::mul($place->rotation, [$q[4 * $j], $q[4 * $j + 1], $q[4 * $j + 2], $q[4 * $j + 3]]),
                    $figure->ahead($j),
                );
                $flat = max(1e-6, hypot($ahead[0], $ahead[2]));
                $sum = [$sum[0] + $share * $ahead[0] / $flat, $sum[1] + $share * $ahead[2] / $flat];
            }
        }

        return $sum === [0.0, 0.0] ? Q4::heading($place->rotation) : atan2($sum[0], $sum[1]);
    }

    /** Height of the hips above the feet at rest, metres. */
    private static function upright(Figure $figure, Placement $place): float
    {
        return (($figure->rest('hips')[1] ?? 1.0) - ($figure->rest('footL')[1] ?? 0.0)) * $place->scale;
    }

    /**
     * @param  list<float>  $p
     * @param  list<float>  $q
     * @return list<array{float, float, float, float, float, float, float, float, float, float, float, float}> rows of the joints' matrices
     */
    private static function matrices(Placement $place, array $p, array $q): array
    {
        $out = [];
        $k = $place->scale;
        for ($j = 0, $n = intdiv(count($p), 3); $j < $n; $j++) {
            [$x, $y, $z, $w] = Q4::mul($place->rotation, [$q[4 * $j], $q[4 * $j + 1], $q[4 * $j + 2], $q[4 * $j + 3]]);
            $t = $place->point([$p[3 * $j], $p[3 * $j + 1], $p[3 * $j + 2]]);
            $out[] = [
                $k * (1 - 2 * ($y * $y + $z * $z)), $k * 2 * ($x * $y - $w * $z), $k * 2 * ($x * $z + $w * $y), $t[0],
                $k * 2 * ($x * $y + $w * $z), $k * (1 - 2 * ($x * $x + $z * $z)), $k * 2 * ($y * $z - $w * $x), $t[1],
                $k * 2 * ($x * $z - $w * $y), $k * 2 * ($y * $z + $w * $x), $k * (1 - 2 * ($x * $x + $y * $y)), $t[2],
            ];
        }

        return $out;
    }
}
