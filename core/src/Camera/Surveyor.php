<?php

declare(strict_types=1);

namespace CrispReel\Core\Camera;

use CrispReel\Core\Format\Gltf\GltfReader;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;
use CrispReel\Core\Rig\Figure;

/**
 * Finds the landmarks of a figure on its drawn surface at rest. A vertex is its place at rest, shares by joint, and its material.
 *
 * @phpstan-type Vec array{float, float, float}
 * @phpstan-type Vertex array{Vec, array<int, float>, string}
 */
final class Surveyor
{
    /** Share of an arm above which a point is none of the trunk's outline. */
    private const ARM = 0.3;

    private const SECTORS = 48;

    /** What hangs from people and is none of their outline. */
    private const WORN = ['hair', 'leather', 'metal'];

    /** @var list<Vertex> */
    private readonly array $vertices;

    /** @var list<array{int, int, int}> */
    private readonly array $triangles;

    /** @var list<float> places of the joints at rest, 3 numbers each */
    private readonly array $rest;

    public function __construct(private readonly Figure $figure, string $glb)
    {
        [$this->rest] = $figure->skeleton->world($figure->skeleton->rotations);
        $surface = new SkinnedSurface(GltfReader::read($glb));
        [$this->vertices, $this->triangles] = [$surface->vertices, $surface->triangles];
    }

    /** @return array<string, list<list<int|float>>> as Landmarks keeps them; places to a tenth of a millimetre */
    public function points(): array
    {
        $out = ['body' => $this->body()];
        $f = $this->figure;
        $eyes = $this->eyes();
        if ($eyes === null) {
            return $out;
        }
        $head = $f->skeleton->roles['head'];
        $onHead = array_values(array_filter(
            $this->vertices,
            fn (array $v): bool => $this->share($v, $this->below('head')) > 0.5,
        ));
        $skin = array_values(array_filter($onHead, static fn (array $v): bool => $v[2] === 'skin'));
        $chin = self::chin($skin === [] ? $onHead : $skin, $eyes[0]) ?? V3::addScaled($eyes[0], [0.0, -1.0, 0.0], 0.11);
        $bare = array_values(array_filter($skin, static fn (array $v): bool => $v[0][1] > $eyes[0][1]));
        $out['crown'] = $this->support($onHead, 160, above: true);
        // Without a word for skin the top of the head is told by the face: as far above the eyes as the chin is below.
        $skull = $bare === [] ? $eyes[0][1] * 2 - $chin[1] : max(array_map(static fn (array $v): float => $v[0][1], $bare));
        $out['skull'] = $bare === [] ? [$this->held($head, [$eyes[0][0], $skull, $eyes[0][2]])] : $this->support($bare, 160, above: true);
        $out['brow'] = [$this->held($head, [$eyes[0][0], $eyes[0][1] + 0.16 * ($skull - $chin[1]), $eyes[0][2] + 0.02])];
        $out['eyes'] = array_map(fn (array $e): array => $this->held($e[1], $e[0]), array_slice($eyes, 1));
        $out['chin'] = [$this->held($head, $chin)];

        return $out + $this->rings() + $this->feetAndShoulders();
    }

    /** @return array{Vec, array{Vec, int}, array{Vec, int}}|null middle, and each eye with its joint */
    private function eyes(): ?array
    {
        $f = $this->figure;
        $head = $f->skeleton->roles['head'] ?? null;
        if ($head === null) {
            return null;
        }
        $out = [];
        foreach (['L' => 1.0, 'R' => -1.0] as $side => $m) {
            $joint = $f->skeleton->roles['eye'.$side] ?? null;
            $out[] = $joint !== null
                ? [$f->rest('eye'.$side) ?? [0.0, 0.0, 0.0], $joint]
                : [V3::addScaled($f->rest('head') ?? [0.0, 0.0, 0.0], [0.018 * $m, 0.055, 0.05], $f->height()), $head];
        }

        return [V3::mix($out[0][0], $out[1][0], 0.5), $out[0], $out[1]];
    }

    /**
     * @param  list<Vertex>  $face
     * @param  Vec  $eyes
     * @return Vec|null the lowest of the face in its middle
     */
    private static function chin(array $face, array $eyes): ?array
    {
        $best = null;
        foreach ($face as [$p]) {
            if (abs($p[0] - $eyes[0]) < 0.03 && $p[2] > $eyes[2] - 0.07 && ($best === null || $p[1] < $best[1])) {
                $best = $p;
            }
        }

        return $best;
    }

    /** @return array<string, list<list<int|float>>> outlines of the body where it is cut */
    private function rings(): array
    {
        $at = fn (string $role): ?float => $this->figure->rest($role)[1] ?? null;
        $mix = static fn (?float $a, ?float $b, float $t): ?float => $a === null || $b === null ? null : $a + ($b - $a) * $t;
        $waist = $mix($at('spine'), $at('chest'), 0.2);
        $out = [];
        foreach ([
            'shoulders' => $at('upperArmL'), 'chest' => $mix($at('upperChest'), $at('chest'), 0.5), 'waist' => $waist,
            'belt' => $mix($waist, $at('upperLegL'), 0.55), 'hip' => $at('upperLegL'),
            'thigh' => $mix($at('upperLegL'), $at('lowerLegL'), 0.5),
            'knee' => $at('lowerLegL'),
        ] as $mark => $level) {
            $ring = $level === null ? [] : $this->ring($level);
            if ($ring !== []) {
                $out[$mark] = $ring;
            }
        }

        return $out;
    }

    /** @return list<list<int|float>> the outermost point of each sector where a level plane cuts the surface */
    private function ring(float $level): array
    {
        $arms = [...$this->figure->part('armL'), ...$this->figure->part('armR')];
        $arms = array_diff($arms, array_intersect_key($this->figure->skeleton->roles, ['shoulderL' => 1, 'shoulderR' => 1]));
        $middle = $this->figure->rest('spine') ?? [0.0, 0.0, 0.0];
        $best = [];
        foreach ($this->triangles as $corners) {
            for ($k = 0; $k < 3; $k++) {
                [$a, $b] = [$this->vertices[$corners[$k]], $this->vertices[$corners[($k + 1) % 3]]];
                if (($a[0][1] < $level) === ($b[0][1] < $level) || in_array($a[2], self::WORN, true)) {
                    continue;
                }
                $t = ($level - $a[0][1]) / ($b[0][1] - $a[0][1]);
                $v = [V3::mix($a[0], $b[0], $t), self::mixed($a[1], $b[1], $t), $a[2]];
                if ($this->share($v, $arms) > self::ARM) {
                    continue;
                }
                [$x, $z] = [$v[0][0] - $middle[0], $v[0][2] - $middle[2]];
                $sector = (int) floor(self::SECTORS * (atan2($x, $z) + M_PI) / (2 * M_PI)) % self::SECTORS;
                if (! isset($best[$sector]) || hypot($x, $z) > $best[$sector][0]) {
                    $best[$sector] = [hypot($x, $z), $v];
                }
            }
        }

        return array_map(fn (array $b): array => $this->bound($b[1]), array_values($best));
    }

    /** @return array<string, list<list<int|float>>> */
    private function feetAndShoulders(): array
    {
        $r = $this->figure->skeleton->roles;
        $out = [];
        foreach ([
            'sole' => $this->below('footL', 'footR'),
            'mass' => array_values(array_intersect_key($r, ['shoulderL' => 0, 'shoulderR' => 0, 'upperArmL' => 0, 'upperArmR' => 0])),
        ] as $mark => $joints) {
            $points = array_values(array_filter($this->vertices, fn (array $v): bool => $this->share($v, $joints) > 0.5));
            if ($points !== []) {
                $out[$mark] = $this->support($points, 96);
            }
        }

        return $out;
    }

    /** @return list<int> joints with these roles, and all that hang on them */
    private function below(string ...$roles): array
    {
        $found = array_flip(array_values(array_intersect_key($this->figure->skeleton->roles, array_flip($roles))));
        foreach ($this->figure->skeleton->parents as $j => $p) {
            $found += isset($found[$p]) ? [$j => 0] : [];
        }

        return array_keys($found);
    }

    /** @return list<list<int|float>> what lies outermost of what each joint moves most */
    private function body(): array
    {
        $by = [];
        foreach ($this->vertices as $v) {
            $most = $v[1] === [] ? -1 : array_search(max($v[1]), $v[1], true);
            $by[(int) $most][] = $v;
        }
        $out = [];
        foreach ($by as $of) {
            array_push($out, ...$this->support($of, 26));
        }

        return $out;
    }

    /**
     * The outermost vertices in directions that are spread evenly over a ball.
     *
     * @param  list<Vertex>  $vertices
     * @param  bool  $above  and more closely around straight up, where the upper edge of a picture cuts
     * @return list<list<int|float>>
     */
    private function support(array $vertices, int $directions, bool $above = false): array
    {
        $found = [];
        foreach (self::directions($directions, $above) as [$dx, $dy, $dz]) {
            $far = -INF;
            $best = -1;
            foreach ($vertices as $k => [$p]) {
                $at = $p[0] * $dx + $p[1] * $dy + $p[2] * $dz;
                if ($at > $far) {
                    [$far, $best] = [$at, $k];
                }
            }
            $found[$best] = true;
        }
        unset($found[-1]);

        return array_map(fn (int $k): array => $this->bound($vertices[$k]), array_keys($found));
    }

    /** @return list<Vec> by the golden angle */
    private static function directions(int $count, bool $above): array
    {
        $out = [];
        for ($i = 0; $i < $count; $i++) {
            $y = 1 - 2 * ($i + 0.5) / $count;
            $a = $i * M_PI * (3 - sqrt(5));
            $out[] = [sqrt(1 - $y * $y) * cos($a), $y, sqrt(1 - $y * $y) * sin($a)];
        }
        for ($tilt = 5; $above && $tilt <= 40; $tilt += 7) {
            for ($k = 0; $k < 24; $k++) {
                [$sin, $a] = [sin(deg2rad($tilt)), deg2rad(15.0 * $k)];
                $out[] = [$sin * cos($a), cos(deg2rad($tilt)), $sin * sin($a)];
            }
        }

        return $out;
    }

    /**
     * @param  Vertex  $v
     * @return list<int|float>
     */
    private function bound(array $v): array
    {
        $out = [];
        foreach ($v[1] as $joint => $share) {
            array_push($out, ...$this->held($joint, $v[0], $share));
        }

        return $out;
    }

    /**
     * @param  Vec  $at  at rest, in the figure's space
     * @return list<int|float> a place that a joint moves
     */
    private function held(int $joint, array $at, float $share = 1.0): array
    {
        $origin = [$this->rest[3 * $joint], $this->rest[3 * $joint + 1], $this->rest[3 * $joint + 2]];
        $local = Q4::rotate(Q4::conjugate($this->figure->restTurn($joint)), V3::sub($at, $origin));

        return [$joint, round($share, 4), round($local[0], 4), round($local[1], 4), round($local[2], 4)];
    }

    /**
     * @param  Vertex  $v
     * @param  array<int>  $joints
     */
    private function share(array $v, array $joints): float
    {
        return array_sum(array_intersect_key($v[1], array_flip($joints)));
    }

    /**
     * @param  array<int, float>  $a
     * @param  array<int, float>  $b
     * @return array<int, float>
     */
    private static function mixed(array $a, array $b, float $t): array
    {
        $out = [];
        foreach ($a + $b as $joint => $_) {
            $out[$joint] = ($a[$joint] ?? 0.0) * (1 - $t) + ($b[$joint] ?? 0.0) * $t;
        }

        return $out;
    }
}
