<?php

declare(strict_types=1);

namespace CrispReel\Core\Meeting;

use CrispReel\Core\Camera\SkinnedSurface;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;
use CrispReel\Core\Rig\Figure;
use CrispReel\Core\Rig\Posture;

/**
 * The drawn surface of a figure in a pose, as far as it is asked for: a vertex goes with each joint that has a share in it (linear
 * blend skinning).
 *
 * @phpstan-type Vec array{float, float, float}
 * @phpstan-type Quat array{float, float, float, float}
 */
final class Skin
{
    /** @var list<list<array{int, float, Vec}>> by vertex: joint, share, place in the joint's space at rest */
    private array $held = [];

    /** @var list<int> joint with the largest share */
    private array $main = [];

    /** @var array<string, list<array{int, int, int}>> */
    private array $patches = [];

    /** @var list<array{int, int, int}> */
    private readonly array $triangles;

    public function __construct(private readonly Figure $figure, SkinnedSurface $surface)
    {
        [$rest] = $figure->skeleton->world($figure->skeleton->rotations);
        foreach ($surface->vertices as [$at, $shares]) {
            $held = [];
            foreach ($shares as $j => $w) {
                $from = [$rest[3 * $j], $rest[3 * $j + 1], $rest[3 * $j + 2]];
                $held[] = [$j, $w, Q4::rotate(Q4::conjugate($figure->restTurn($j)), V3::sub($at, $from))];
            }
            arsort($shares);
            $this->held[] = $held;
            $this->main[] = array_key_first($shares) ?? -1;
        }
        $this->triangles = $surface->triangles;
    }

    /**
     * Triangles of which a corner goes mainly with one of the joints.
     *
     * @param  list<string>  $roles  human roles, or names of joints
     * @return list<array{int, int, int}>
     */
    public function patch(array $roles): array
    {
        $key = implode(' ', $roles);
        if (! isset($this->patches[$key])) {
            $joints = $this->joints($roles);
            $this->patches[$key] = array_values(array_filter(
                $this->triangles,
                fn (array $t): bool => isset($joints[$this->main[$t[0]]]) || isset($joints[$this->main[$t[1]]])
                    || isset($joints[$this->main[$t[2]]]),
            ));
        }

        return $this->patches[$key];
    }

    /**
     * Vertices that go mainly with one of the joints.
     *
     * @param  list<string>  $roles
     * @return list<int>
     */
    public function vertices(array $roles): array
    {
        $joints = $this->joints($roles);

        return array_keys(array_filter($this->main, static fn (int $j): bool => isset($joints[$j])));
    }

    /**
     * @param  list<string>  $roles
     * @return array<int, true>
     */
    private function joints(array $roles): array
    {
        $out = [];
        foreach ($roles as $r) {
            $j = $this->figure->skeleton->joint($r);
            if ($j !== null) {
                $out[$j] = true;
            }
        }

        return $out;
    }

    /**
     * Where vertices are in a pose, in the figure's space.
     *
     * @param  iterable<int>  $vertices
     * @return array<int, Vec> by vertex
     */
    public function posed(iterable $vertices, Posture $posture): array
    {
        $places = $turns = $out = [];
        foreach ($vertices as $v) {
            if (isset($out[$v])) {
                continue;
            }
            $x = $y = $z = 0.0;
            foreach ($this->held[$v] as [$j, $w, [$ax, $ay, $az]]) {
                [$px, $py, $pz] = $places[$j] ??= $posture->at($j)[0];
                [$qx, $qy, $qz, $qw] = $turns[$j] ??= $posture->at($j)[1];
                $tx = 2.0 * ($qy * $az - $qz * $ay);
                $ty = 2.0 * ($qz * $ax - $qx * $az);
                $tz = 2.0 * ($qx * $ay - $qy * $ax);
                $x += $w * ($px + $ax + $qw * $tx + $qy * $tz - $qz * $ty);
                $y += $w * ($py + $ay + $qw * $ty + $qz * $tx - $qx * $tz);
                $z += $w * ($pz + $az + $qw * $tz + $qx * $ty - $qy * $tx);
            }
            $out[$v] = [$x, $y, $z];
        }

        return $out;
    }
}
