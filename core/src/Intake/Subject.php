<?php

declare(strict_types=1);

namespace CrispReel\Core\Intake;

use CrispReel\Core\Format\Gltf\GltfDraft;
use CrispReel\Core\Format\Gltf\Json;
use CrispReel\Core\Math\M4;
use CrispReel\Core\Math\V3;
use CrispReel\Core\Rig\HumanRoles;
use CrispReel\Core\Rig\Skeleton;

/**
 * A file under examination: its draft and what can be measured on it. Measures are kept until something is changed.
 *
 * @phpstan-type Vec array{float, float, float}
 * @phpstan-type Node array{name: string, parent: int, translation: Vec, rotation: array{float, float, float, float}, scale: Vec, mesh: int|null, skin: int|null}
 * @phpstan-type Solid array{node: int, mesh: int, primitive: int, skinned: bool, positions: list<float>, index: list<int>, material: int|null}
 */
final class Subject
{
    /** @var list<Node>|null */
    private ?array $nodes = null;

    /** @var list<Solid>|null */
    private ?array $solids = null;

    private ?Skeleton $skeleton = null;

    /** @var array<int, Alpha|null> by picture */
    private array $alphas = [];

    /**
     * @param  string  $format  the ending of the file that arrived, lower case
     * @param  'performer'|'set'|'prop'|null  $kind  told by a person; null: judged from the file
     * @param  list<string>  $left  what was left out on the way, in words
     */
    public function __construct(
        public readonly GltfDraft $draft,
        public readonly string $format,
        private readonly ?string $kind = null,
        public array $left = [],
    ) {
    }

    /** Forget what was measured. */
    public function touched(): void
    {
        $this->nodes = $this->solids = $this->skeleton = null;
    }

    public function isFigure(): bool
    {
        return $this->draft->list('skins') !== [];
    }

    /** @return 'performer'|'set'|'prop' */
    public function kind(): string
    {
        if ($this->kind !== null) {
            return $this->kind;
        }
        // A person; or a creature, a machine, that brings motions of its own to play.
        if ($this->isFigure() && ($this->isPerson() || $this->draft->list('animations') !== [])) {
            return 'performer';
        }
        [$low, $high] = $this->bounds();

        return max($high[0] - $low[0], $high[2] - $low[2]) > 4.0 ? 'set' : 'prop';
    }

    /** Enough joints are told as parts of a body. */
    public function isPerson(): bool
    {
        $roles = $this->skeleton()->roles ?? [];

        return isset($roles['hips'], $roles['head'], $roles['upperLegL'], $roles['upperLegR']);
    }

    /** @return list<Node> */
    public function nodes(): array
    {
        if ($this->nodes !== null) {
            return $this->nodes;
        }
        $list = $this->draft->list('nodes');
        $parents = [];
        foreach ($list as $i => $n) {
            foreach (is_array($n['children'] ?? null) ? $n['children'] : [] as $c) {
                $parents[is_int($c) ? $c : -1] = $i;
            }
        }
        $nodes = [];
        foreach ($list as $i => $n) {
            [$t, $q, $s] = is_array($n['matrix'] ?? null)
                ? M4::decompose(Json::floats($n['matrix']))
                : [
                    Json::floats($n['translation'] ?? [0, 0, 0]), Json::floats($n['rotation'] ?? [0, 0, 0, 1]),
                    Json::floats($n['scale'] ?? [1, 1, 1]),
                ];
            $l = sqrt($q[0] ** 2 + $q[1] ** 2 + $q[2] ** 2 + $q[3] ** 2) ?: 1.0;
            $nodes[] = [
                'name' => is_string($n['name'] ?? null) && $n['name'] !== '' ? $n['name'] : "node{$i}", 'parent' => $parents[$i] ?? -1,
                'translation' => [$t[0], $t[1], $t[2]], 'rotation' => [$q[0] / $l, $q[1] / $l, $q[2] / $l, $q[3] / $l],
                'scale' => [$s[0], $s[1], $s[2]],
                'mesh' => is_int($n['mesh'] ?? null) ? $n['mesh'] : null, 'skin' => is_int($n['skin'] ?? null) ? $n['skin'] : null,
            ];
        }

        return $this->nodes = $nodes;
    }

    /** @return list<float> world matrix at rest, column-major */
    public function world(int $node): array
    {
        $n = $this->nodes()[$node];
        $m = M4::compose($n['translation'], $n['rotation'], $n['scale']);

        return $n['parent'] === -1 ? $m : M4::mul($this->world($n['parent']), $m);
    }

    /**
     * Every surface with its points in the world at rest. Skins are taken as settled: their points are in the world.
     *
     * @return list<Solid>
     */
    public function solids(): array
    {
        if ($this->solids !== null) {
            return $this->solids;
        }
        $byMesh = [];
        foreach ($this->draft->primitives() as $p) {
            $byMesh[$p['mesh']][] = $p;
        }
        $solids = [];
        foreach ($this->nodes() as $i => $n) {
            foreach ($n['mesh'] === null ? [] : $byMesh[$n['mesh']] ?? [] as $p) {
                if (! isset($p['attributes']['POSITION'])) {
                    continue;
                }
                $positions = $this->draft->values($p['attributes']['POSITION']);
                $skinned = $n['skin'] !== null && isset($p['attributes']['JOINTS_0']);
                $count = intdiv(count($positions), 3);
                $solids[] = [
                    'node' => $i, 'mesh' => $p['mesh'], 'primitive' => $p['primitive'], 'skinned' => $skinned,
                    'positions' => $skinned ? $positions : self::moved($positions, $this->world($i)),
                    'index' => $p['indices'] === null ? range(0, $count - 1) : array_map(intval(...), $this->draft->values($p['indices'])),
                    'material' => $p['material'],
                ];
            }
        }

        return $this->solids = $solids;
    }

    /**
     * @param  list<float>  $flat
     * @param  list<float>  $m
     * @return list<float>
     */
    public static function moved(array $flat, array $m): array
    {
        if ($m === M4::IDENTITY) {
            return $flat;
        }
        [$a, $b, $c, , $d, $e, $f, , $g, $h, $k, , $x, $y, $z] = $m;
        $out = [];
        for ($i = 0, $n = count($flat); $i < $n; $i += 3) {
            [$u, $v, $w] = [$flat[$i], $flat[$i + 1], $flat[$i + 2]];
            $out[] = $a * $u + $d * $v + $g * $w + $x;
            $out[] = $b * $u + $e * $v + $h * $w + $y;
            $out[] = $c * $u + $f * $v + $k * $w + $z;
        }

        return $out;
    }

    /** @return array{Vec, Vec} metres; zeros when there is nothing */
    public function bounds(): array
    {
        [$low, $high] = [[INF, INF, INF], [-INF, -INF, -INF]];
        foreach ($this->solids() as $s) {
            $p = $s['positions'];
            for ($i = 0, $n = count($p); $i < $n; $i += 3) {
                for ($k = 0; $k < 3; $k++) {
                    $v = $p[$i + $k];
                    if ($v < $low[$k]) {
                        $low[$k] = $v;
                    }
                    if ($v > $high[$k]) {
                        $high[$k] = $v;
                    }
                }
            }
        }

        return $low[0] === INF ? [[0.0, 0.0, 0.0], [0.0, 0.0, 0.0]] : [$low, $high];
    }

    /** @return Vec */
    public function size(): array
    {
        [$low, $high] = $this->bounds();

        return V3::sub($high, $low);
    }

    /** Joints of the settled skin; null without one. */
    public function skeleton(): ?Skeleton
    {
        if (! $this->isFigure()) {
            return null;
        }
        if ($this->skeleton !== null) {
            return $this->skeleton;
        }
        $joints = $this->joints();
        $order = array_flip($joints);
        $nodes = $this->nodes();
        $names = $parents = $t = $r = $s = [];
        foreach ($joints as $j) {
            $name = $nodes[$j]['name'];
            $names[] = in_array($name, $names, true) ? "{$name} {$j}" : $name;
            $parents[] = $order[$nodes[$j]['parent']] ?? -1;
            array_push($t, ...$nodes[$j]['translation']);
            array_push($r, ...$nodes[$j]['rotation']);
            array_push($s, ...$nodes[$j]['scale']);
        }

        return $this->skeleton = new Skeleton(
            $names,
            $parents,
            $t,
            $r,
            $s,
            array_map(static fn (array $f): int => $f['joint'], HumanRoles::judge(new Skeleton($names, $parents, $t, $r, $s))),
        );
    }

    /** @return list<int> nodes that are joints of the first skin, parents first */
    public function joints(): array
    {
        $skin = $this->draft->list('skins')[0] ?? [];

        /** @var list<int> $joints */
        $joints = array_values(array_filter(is_array($skin['joints'] ?? null) ? $skin['joints'] : [], is_int(...)));
        $nodes = $this->nodes();
        $depth = static function (int $n) use ($nodes): int {
            for ($d = 0; $nodes[$n]['parent'] !== -1; $d++) {
                $n = $nodes[$n]['parent'];
            }

            return $d;
        };
        usort($joints, static fn (int $a, int $b): int => [$depth($a), $a] <=> [$depth($b), $b]);

        return $joints;
    }

    /**
     * Where a role's joint is at rest.
     *
     * @return Vec|null
     */
    public function place(string $role): ?array
    {
        $skeleton = $this->skeleton();
        $joint = $skeleton?->roles[$role] ?? null;
        if ($skeleton === null || $joint === null) {
            return null;
        }
        $m = $this->world($this->joints()[$joint]);

        return [$m[12], $m[13], $m[14]];
    }

    /**
     * What of a surface's picture is clear; null without a picture that can be read.
     *
     * @param  array<string, mixed>  $material
     */
    public function alpha(array $material): ?Alpha
    {
        $pbr = is_array($material['pbrMetallicRoughness'] ?? null) ? $material['pbrMetallicRoughness'] : [];
        $texture = is_array($pbr['baseColorTexture'] ?? null) ? $pbr['baseColorTexture']['index'] ?? null : null;
        $source = is_int($texture) ? $this->draft->list('textures')[$texture]['source'] ?? null : null;
        if (! is_int($source)) {
            return null;
        }
        if (! array_key_exists($source, $this->alphas)) {
            $bytes = $this->draft->source()->picture($source);
            $this->alphas[$source] = $bytes === null ? null : Alpha::of($bytes);
        }

        return $this->alphas[$source];
    }

    /** @param  array<int, array<string, mixed>>  $changes  node to translation, rotation, scale and others; its matrix goes */
    public function setNodes(array $changes): void
    {
        $list = $this->draft->list('nodes');
        foreach ($changes as $node => $with) {
            $list[$node] = array_filter($with + $list[$node], static fn ($v): bool => $v !== null);
            unset($list[$node]['matrix']);
        }
        $this->draft->json['nodes'] = $list;
        $this->touched();
    }
}
