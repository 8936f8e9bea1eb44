<?php

declare(strict_types=1);

namespace CrispReel\Core\Intake;

use CrispReel\Core\Format\Gltf\GltfWriter;
use CrispReel\Core\Format\Gltf\Json;
use CrispReel\Core\Math\M4;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Rig\HumanRoles;
use CrispReel\Core\Rig\Skeleton;

/**
 * Brings a skinned file to the one form that the rest of the program works with: a single skin, joints without scale and
 * with nothing above them, skinned points in the world. What is seen stays the same to the point, since
 * point = sum of weight x joint world x inverse bind matrix x stored point (glTF 2.0, section 3.7.3.3) is worked out once.
 *
 * @phpstan-type Mat list<float>
 */
final class Settle
{
    /** @var list<int> parents first */
    private array $joints;

    /** @var array<int, Mat> joint's node to world matrix at rest */
    private array $rest = [];

    /** @var array<int, Mat> joint's node to inverse bind matrix */
    private array $bind = [];

    /** @var bool a joint is stretched unevenly, which cannot be kept */
    public bool $uneven = false;

    public function __construct(private readonly Subject $subject, private readonly bool $fromBind = false)
    {
        $this->joints = $this->collect();
        $this->readBind();
        foreach ($this->joints as $j) {
            $this->rest[$j] = $this->subject->world($j);
        }
    }

    /** How far the file's rest stands from the pose that its skin was bound in: the largest turn of a joint, degrees. */
    public function bendFromBind(): float
    {
        $worst = 0.0;
        $bound = $this->boundRest();
        foreach ($this->joints as $j) {
            $parent = $this->subject->nodes()[$j]['parent'];
            if (isset($this->bind[$j], $this->bind[$parent])) {
                $worst = max($worst, rad2deg(Q4::angleBetween(self::local($this->rest, $parent, $j), self::local($bound, $parent, $j))));
            }
        }

        return $worst;
    }

    /**
     * @param  array<int, Mat>  $world
     * @return array{float, float, float, float}
     */
    private static function local(array $world, int $parent, int $joint): array
    {
        return M4::decompose(M4::mul(self::inverse($world[$parent]), $world[$joint]))[1];
    }

    /** Lays joints above the hips straight again after the whole body was turned. */
    public static function straighten(Subject $subject): void
    {
        if (! $subject->isFigure()) {
            return;
        }
        $settle = new self($subject);
        foreach (array_keys($settle->overHips($settle->rest)) as $j) {
            if (Q4::angleBetween(M4::decompose($settle->rest[$j])[1], Q4::IDENTITY) > 1e-4) {
                $settle->apply();

                return;
            }
        }
    }

    public function apply(): void
    {
        $before = $this->rest;
        $target = $this->fromBind ? $this->boundRest() : $this->rest;
        $order = array_flip($this->joints);
        $draft = $this->subject->draft;
        $skins = $draft->list('skins');
        // Points and shapes first, while the old numbers stand.
        $done = [];
        foreach ($this->subject->nodes() as $n) {
            if ($n['skin'] === null || $n['mesh'] === null || isset($done[$n['mesh']])) {
                continue;
            }
            $done[$n['mesh']] = true;
            $this->settleMesh($n['mesh'], $skins[$n['skin']] ?? [], $target, $order);
        }
        $over = $this->overHips($target);
        $this->settleMotion(
            $before, $order, array_map(static fn (array $m): array => M4::decompose($m)[1], array_intersect_key($target, $over)),
        );
        $inverse = [];
        $rigid = [];
        $changes = [];
        foreach ($this->joints as $j) {
            [$t, $q, $s] = M4::decompose($target[$j]);
            $this->uneven = $this->uneven || max(abs($s[0]), abs($s[1]), abs($s[2])) > 1.02 * min(abs($s[0]), abs($s[1]), abs($s[2]));
            $rigid[$j] = M4::compose($t, isset($over[$j]) ? Q4::IDENTITY : $q, [1.0, 1.0, 1.0]);
            array_push($inverse, ...self::inverse($rigid[$j]));
            $parent = $this->subject->nodes()[$j]['parent'];
            $local = isset($order[$parent]) ? M4::mul(self::inverse($rigid[$parent]), $rigid[$j]) : $rigid[$j];
            [$t, $q] = M4::decompose($local);
            $changes[$j] = ['translation' => $t, 'rotation' => $q, 'scale' => null];
        }
        $this->hang($changes, $order, $rigid, $before);
        $draft->json['skins'] = [['joints' => $this->joints, 'inverseBindMatrices' => $draft->add($inverse, 16)]];
        $this->subject->touched();
    }

    /**
     * Joints above the hips. They are laid straight, so that hips are placed in a space that has no turn of its own.
     *
     * @param  array<int, Mat>  $world
     * @return array<int, true>
     */
    private function overHips(array $world): array
    {
        $names = $parents = $t = $r = [];
        $order = array_flip($this->joints);
        foreach ($this->joints as $j) {
            $parent = $this->subject->nodes()[$j]['parent'];
            $names[] = $this->subject->nodes()[$j]['name'].' '.$j;
            $parents[] = $order[$parent] ?? -1;
            [$place, $turn] = M4::decompose(isset($order[$parent]) ? M4::mul(self::inverse($world[$parent]), $world[$j]) : $world[$j]);
            array_push($t, ...$place);
            array_push($r, ...$turn);
        }
        $named = array_map(fn (int $j): string => $this->subject->nodes()[$j]['name'], $this->joints);
        $unique = count(array_unique($named)) === count($named) ? $named : $names;
        $roles = HumanRoles::chosen(new Skeleton($unique, $parents, $t, $r, array_fill(0, 3 * count($names), 1.0), []));
        $out = [];
        for ($k = isset($roles['hips']) ? $parents[$roles['hips']] : -1; $k >= 0; $k = $parents[$k]) {
            $out[$this->joints[$k]] = true;
        }

        return $out;
    }

    /** @return array<int, true> nodes that motions turn or move */
    private function animated(): array
    {
        $out = [];
        foreach ($this->subject->draft->list('animations') as $animation) {
            foreach (Json::maps($animation['channels'] ?? []) as $c) {
                $target = Json::map($c['target'] ?? null);
                if (is_int($target['node'] ?? null) && in_array($target['path'] ?? '', ['rotation', 'translation'], true)) {
                    $out[$target['node']] = true;
                }
            }
        }

        return $out;
    }

    /** @return list<int> all skins' joints, what stands between them, and what moves above them, parents first */
    private function collect(): array
    {
        $nodes = $this->subject->nodes();
        $named = [];
        foreach ($this->subject->draft->list('skins') as $skin) {
            foreach (is_array($skin['joints'] ?? null) ? $skin['joints'] : [] as $j) {
                if (is_int($j) && isset($nodes[$j])) {
                    $named[$j] = true;
                }
            }
        }
        $all = $named;
        $moved = $this->animated();
        foreach (array_keys($named) as $j) {
            $between = [];
            for ($p = $nodes[$j]['parent']; $p >= 0; $p = $nodes[$p]['parent']) {
                $between[] = $p;
                if (isset($named[$p]) || isset($moved[$p])) {
                    $all += array_fill_keys($between, true);
                    $between = [];
                }
            }
        }
        $depth = [];
        foreach (array_keys($all) as $j) {
            for ($d = 0, $p = $nodes[$j]['parent']; $p >= 0; $p = $nodes[$p]['parent']) {
                $d++;
            }
            $depth[$j] = $d;
        }
        $joints = array_keys($all);
        usort($joints, static fn (int $a, int $b): int => [$depth[$a], $a] <=> [$depth[$b], $b]);

        return $joints;
    }

    private function readBind(): void
    {
        foreach ($this->subject->draft->list('skins') as $skin) {
            $flat = is_int($skin['inverseBindMatrices'] ?? null) ? $this->subject->draft->values($skin['inverseBindMatrices']) : [];
            foreach (is_array($skin['joints'] ?? null) ? array_values($skin['joints']) : [] as $k => $j) {
                if (is_int($j) && ! isset($this->bind[$j])) {
                    $this->bind[$j] = count($flat) >= 16 * ($k + 1) ? array_slice($flat, 16 * $k, 16) : M4::IDENTITY;
                }
            }
        }
    }

    /**
     * The joints' worlds in the pose that the skin was bound in. Exporters differ in what they count from, so of the
     * likely bases the one is taken under which the first joints stand nearest to the rest.
     *
     * @return array<int, Mat>
     */
    private function boundRest(): array
    {
        $nodes = $this->subject->nodes();
        $bases = [M4::IDENTITY];
        $root = $this->joints[0] ?? -1;
        if ($root >= 0 && $nodes[$root]['parent'] >= 0) {
            $bases[] = $this->subject->world($nodes[$root]['parent']);
        }
        foreach ($nodes as $i => $n) {
            if ($n['skin'] !== null) {
                $bases[] = $this->subject->world($i);
            }
        }
        [$best, $least] = [M4::IDENTITY, INF];
        foreach ($bases as $base) {
            $off = 0.0;
            foreach (array_slice($this->joints, 0, 4) as $j) {
                $m = isset($this->bind[$j]) ? M4::mul($base, self::inverse($this->bind[$j])) : $this->rest[$j];
                for ($k = 0; $k < 16; $k++) {
                    $off += abs($m[$k] - $this->rest[$j][$k]);
                }
            }
            if ($off < $least - 1e-9) {
                [$best, $least] = [$base, $off];
            }
        }
        $out = [];
        foreach ($this->joints as $j) {
            $parent = $nodes[$j]['parent'];
            $out[$j] = match (true) {
                isset($this->bind[$j]) => M4::mul($best, self::inverse($this->bind[$j])),
                isset($out[$parent]) => M4::mul(
                    $out[$parent],
                    M4::compose($nodes[$j]['translation'], $nodes[$j]['rotation'], $nodes[$j]['scale']),
                ),
                default => $this->rest[$j],
            };
        }

        return $out;
    }

    /**
     * @param  array<string, mixed>  $skin
     * @param  array<int, Mat>  $target
     * @param  array<int, int>  $order  joint's node to its place in the one skin
     */
    private function settleMesh(int $mesh, array $skin, array $target, array $order): void
    {
        $draft = $this->subject->draft;
        $own = Json::ints($skin['joints'] ?? null);
        $flat = is_int($skin['inverseBindMatrices'] ?? null) ? $draft->values($skin['inverseBindMatrices']) : [];
        $matrices = $places = [];
        foreach ($own as $k => $j) {
            $inverse = count($flat) >= 16 * ($k + 1) ? array_slice($flat, 16 * $k, 16) : M4::IDENTITY;
            $matrices[] = M4::mul($target[$j], $inverse);
            $places[] = $order[$j];
        }
        foreach ($draft->primitives() as $p) {
            $a = $p['attributes'];
            if ($p['mesh'] !== $mesh || ! isset($a['POSITION'], $a['JOINTS_0'], $a['WEIGHTS_0'])) {
                continue;
            }
            $joints = array_map(intval(...), $draft->values($a['JOINTS_0']));
            $weights = $draft->values($a['WEIGHTS_0']);
            $blends = SkinBlend::blends($joints, $weights, $matrices, $places, intdiv(count($draft->values($a['POSITION'])), 3));
            $with = ['POSITION' => $draft->add(SkinBlend::carried($draft->values($a['POSITION']), $blends[0], true), 3)];
            if (isset($a['NORMAL'])) {
                $with['NORMAL'] = $draft->add(SkinBlend::units(SkinBlend::carried($draft->values($a['NORMAL']), $blends[0], false)), 3);
            }
            $with['JOINTS_0'] = $draft->add($blends[1], 4, GltfWriter::USHORT);
            $with['WEIGHTS_0'] = $draft->add($blends[2], 4);
            $targets = array_map(function (array $t) use ($draft, $blends): array {
                $out = [];
                foreach (['POSITION', 'NORMAL'] as $name) {
                    if (isset($t[$name])) {
                        $out[$name] = $draft->add(SkinBlend::carried($draft->values($t[$name]), $blends[0], false), 3);
                    }
                }

                return $out;
            }, $p['targets']);
            $rest = array_filter($a, static fn (string $k): bool => preg_match('/^(TEXCOORD|COLOR)_\d+$/', $k) === 1, ARRAY_FILTER_USE_KEY);
            $draft->amendPrimitive(
                $mesh,
                $p['primitive'],
                ['attributes' => $with + $rest] + ($targets === [] ? [] : ['targets' => $targets]),
            );
        }
    }

    /**
     * Keys of joints: places grow with the scale of what was above, and what stood above the first joint goes into its keys.
     * A joint that is laid straight gives its rest turn to those below it: turn of the one above times the key times its own
     * turn undone.
     *
     * @param  array<int, Mat>  $before
     * @param  array<int, int>  $order
     * @param  array<int, array{float, float, float, float}>  $straight  rest turns, in the world, of joints that are laid straight
     */
    private function settleMotion(array $before, array $order, array $straight): void
    {
        $nodes = $this->subject->nodes();
        $this->subject->draft->rewriteKeys(function (
            int $node, string $path, bool $cubic, array $values,
        ) use ($nodes, $order, $before, $straight): array|null|false {
            if (! isset($order[$node]) || $path === 'weights') {
                return null;
            }
            if ($path === 'scale') {
                return false;
            }
            $parent = $nodes[$node]['parent'] ?? -1;
            $above = $parent === -1 ? M4::IDENTITY : ($before[$parent] ?? $this->subject->world($parent));

            return self::laid(
                self::keys($values, $path, $above, isset($order[$parent]), $cubic),
                $path,
                $straight[$parent] ?? null,
                $straight[$node] ?? null,
            );
        });
    }

    /**
     * @param  list<float>  $values
     * @param  array{float, float, float, float}|null  $above
     * @param  array{float, float, float, float}|null  $own
     * @return list<float>
     */
    private static function laid(array $values, string $path, ?array $above, ?array $own): array
    {
        if ($above === null && ($own === null || $path !== 'rotation')) {
            return $values;
        }
        $out = [];
        foreach (array_chunk($values, $path === 'rotation' ? 4 : 3) as $v) {
            if ($path === 'rotation') {
                $q = Q4::mul($above ?? Q4::IDENTITY, [$v[0], $v[1], $v[2], $v[3]]);
                array_push($out, ...($own === null ? $q : Q4::mul($q, Q4::conjugate($own))));
            } else {
                array_push($out, ...Q4::rotate($above ?? Q4::IDENTITY, [$v[0], $v[1], $v[2]]));
            }
        }

        return $out;
    }

    /**
     * @param  list<float>  $values
     * @param  Mat  $above
     * @return list<float>
     */
    private static function keys(array $values, string $path, array $above, bool $underJoint, bool $cubic): array
    {
        [, $q, $s] = M4::decompose($above);
        $scale = abs($s[1]);
        $out = [];
        if ($path === 'rotation') {
            if ($underJoint) {
                return $values;
            }
            foreach (array_chunk($values, 4) as $r) {
                array_push($out, ...Q4::mul($q, [$r[0], $r[1], $r[2], $r[3]]));
            }

            return $out;
        }
        foreach (array_chunk($values, 3) as $i => $t) {
            $tangent = $cubic && $i % 3 !== 1;
            $t = [$t[0], $t[1], $t[2]];
            array_push($out, ...match (true) {
                $underJoint => [$t[0] * $scale, $t[1] * $scale, $t[2] * $scale],
                $tangent => Q4::rotate($q, [$t[0] * $scale, $t[1] * $scale, $t[2] * $scale]),
                default => M4::point($above, $t),
            });
        }

        return $out;
    }

    /**
     * First joints and skinned meshes become the scene's roots; what hangs on a joint keeps its place there.
     *
     * @param  array<int, array<string, mixed>>  $changes
     * @param  array<int, int>  $order
     * @param  array<int, Mat>  $rigid
     * @param  array<int, Mat>  $before
     */
    private function hang(array $changes, array $order, array $rigid, array $before): void
    {
        $nodes = $this->subject->nodes();
        $roots = [];
        $list = $this->subject->draft->list('nodes');
        foreach ($nodes as $i => $n) {
            $parent = $n['parent'];
            if (isset($order[$i]) ? ! isset($order[$parent]) : $n['skin'] !== null) {
                $roots[] = $i;
                if ($n['skin'] !== null && ! isset($order[$i])) {
                    $changes[$i] = ['translation' => null, 'rotation' => null, 'scale' => null, 'skin' => 0];
                }
                if ($parent !== -1) {
                    $list[$parent]['children'] = array_values(array_diff(Json::ints($list[$parent]['children'] ?? []), [$i]));
                }
            } elseif (! isset($order[$i]) && isset($order[$parent])) {
                $held = M4::mul(
                    self::inverse($rigid[$parent]),
                    M4::mul($before[$parent], M4::compose($n['translation'], $n['rotation'], $n['scale'])),
                );
                [$t, $q, $s] = M4::decompose($held);
                $changes[$i] = ['translation' => $t, 'rotation' => $q, 'scale' => $s];
            } elseif ($parent === -1) {
                $roots[] = $i;
            }
        }
        foreach ($list as $i => $n) {
            if (($n['children'] ?? null) === []) {
                unset($list[$i]['children']);
            }
        }
        $this->subject->draft->json['nodes'] = $list;
        $this->subject->draft->json['scenes'] = [['nodes' => array_values(array_unique($roots))]];
        $this->subject->draft->json['scene'] = 0;
        $this->subject->setNodes($changes);
    }

    /**
     * @param  Mat  $m  rotation, scale, shear and place
     * @return Mat
     */
    public static function inverse(array $m): array
    {
        [$a, $b, $c, , $d, $e, $f, , $g, $h, $i, , $x, $y, $z] = $m;
        $A = $e * $i - $f * $h;
        $B = $f * $g - $d * $i;
        $C = $d * $h - $e * $g;
        $det = $a * $A + $b * $B + $c * $C;
        $k = abs($det) > 1e-30 ? 1 / $det : 0.0;
        $r = [
            $A * $k, ($c * $h - $b * $i) * $k, ($b * $f - $c * $e) * $k, $B * $k, ($a * $i - $c * $g) * $k, ($c * $d - $a * $f) * $k,
            $C * $k, ($b * $g - $a * $h) * $k, ($a * $e - $b * $d) * $k,
        ];

        return [
            $r[0], $r[1], $r[2], 0.0, $r[3], $r[4], $r[5], 0.0, $r[6], $r[7], $r[8], 0.0,
            -($r[0] * $x + $r[3] * $y + $r[6] * $z), -($r[1] * $x + $r[4] * $y + $r[7] * $z), -($r[2] * $x + $r[5] * $y + $r[8] * $z), 1.0,
        ];
    }
}
