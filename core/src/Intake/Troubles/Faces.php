<?php

declare(strict_types=1);

namespace CrispReel\Core\Intake\Troubles;

use CrispReel\Core\Document\Finding;
use CrispReel\Core\Document\Severity;
use CrispReel\Core\Intake\Subject;
use CrispReel\Core\Intake\Trouble;

/** Surfaces turned inside out: a closed one that holds less than nothing, or one whose faces turn against their normals. */
final class Faces implements Trouble
{
    public function code(): string
    {
        return 'faces';
    }

    public function look(Subject $subject): ?Finding
    {
        $found = self::found($subject);
        if ($found === []) {
            return null;
        }
        $names = array_values(array_unique(array_map(static fn (array $s): string => $subject->nodes()[$s['node']]['name'], $found)));

        return Finding::ofFile(
            'faces', Severity::Harms,
            count($names) === 1 ? "\"{$names[0]}\" is turned inside out." : count($names).' parts are turned inside out.',
            'One would look through the front at the inside of the back.', [], 'Turn the faces out', safe: true, names: $names,
        );
    }

    public function mend(Subject $subject, array $with): void
    {
        $draft = $subject->draft;
        foreach (self::found($subject) as $s) {
            $flipped = [];
            for ($i = 0, $n = count($s['index']); $i < $n; $i += 3) {
                array_push($flipped, (float) $s['index'][$i], (float) $s['index'][$i + 2], (float) $s['index'][$i + 1]);
            }
            $with = ['indices' => $draft->add($flipped, 1, \CrispReel\Core\Format\Gltf\GltfWriter::UINT)];
            $own = $draft->attributes($s['mesh'], $s['primitive']);
            if (isset($own['NORMAL']) && self::agree($draft->values($own['NORMAL']), $draft->values($own['POSITION']), $s['index']) > 0.0) {
                $normals = array_map(static fn (float $v): float => -$v, $draft->values($own['NORMAL']));
                $with['attributes'] = ['NORMAL' => $draft->add($normals, 3)] + $own;
            }
            $draft->amendPrimitive($s['mesh'], $s['primitive'], $with);
        }
        $subject->touched();
    }

    /** @return list<array{node: int, mesh: int, primitive: int, skinned: bool, positions: list<float>, index: list<int>, material: int|null}> */
    private static function found(Subject $subject): array
    {
        $found = $seen = [];
        foreach ($subject->solids() as $s) {
            $m = $s['material'] === null ? [] : $subject->draft->list('materials')[$s['material']] ?? [];
            $key = "{$s['mesh']}/{$s['primitive']}";
            if (isset($seen[$key]) || ($m['doubleSided'] ?? false) === true || count($s['index']) < 12) {
                continue;
            }
            $seen[$key] = true;
            $mirrored = ! $s['skinned'] && self::determinant($subject->world($s['node'])) < 0.0;
            [$volume, $closed] = self::volume($s['positions'], $s['index']);
            $own = $subject->draft->attributes($s['mesh'], $s['primitive']);
            $against = isset($own['NORMAL'])
                && self::agree($subject->draft->values($own['NORMAL']), $subject->draft->values($own['POSITION']), $s['index']) < -0.3;
            // A room is closed too and means to be seen from inside: for sets only the normals tell.
            if ($against || ($closed && $subject->kind() !== 'set' && ($mirrored ? $volume > 0.0 : $volume < 0.0))) {
                $found[] = $s;
            }
        }

        return $found;
    }

    /** @param  list<float>  $m */
    private static function determinant(array $m): float
    {
        return $m[0] * ($m[5] * $m[10] - $m[6] * $m[9]) - $m[4] * ($m[1] * $m[10] - $m[2] * $m[9]) + $m[8]
            * ($m[1] * $m[6] - $m[2] * $m[5]);
    }

    /**
     * Share of the area whose faces turn with their normals, less the share that turns against them.
     *
     * @param  list<float>  $normals
     * @param  list<float>  $p
     * @param  list<int>  $index
     */
    private static function agree(array $normals, array $p, array $index): float
    {
        $with = $all = 0.0;
        $step = 3 * max(1, intdiv(count($index), 3 * 4000));
        for ($i = 0, $n = count($index) - 2; $i < $n; $i += $step) {
            [$a, $b, $c] = [3 * $index[$i], 3 * $index[$i + 1], 3 * $index[$i + 2]];
            [$ux, $uy, $uz] = [$p[$b] - $p[$a], $p[$b + 1] - $p[$a + 1], $p[$b + 2] - $p[$a + 2]];
            [$vx, $vy, $vz] = [$p[$c] - $p[$a], $p[$c + 1] - $p[$a + 1], $p[$c + 2] - $p[$a + 2]];
            [$x, $y, $z] = [$uy * $vz - $uz * $vy, $uz * $vx - $ux * $vz, $ux * $vy - $uy * $vx];
            $area = sqrt($x * $x + $y * $y + $z * $z);
            $dot = $x * $normals[$a] + $y * $normals[$a + 1] + $z * $normals[$a + 2];
            $with += $dot > 0.0 ? $area : -$area;
            $all += $area;
        }

        return $all > 0.0 ? $with / $all : 0.0;
    }

    /**
     * Signed volume (divergence theorem), and whether every edge has two faces once points on one place are taken as one.
     *
     * @param  list<float>  $p
     * @param  list<int>  $index
     * @return array{float, bool}
     */
    private static function volume(array $p, array $index): array
    {
        $same = $at = $edges = [];
        $volume = 0.0;
        for ($i = 0, $n = count($p); $i < $n; $i += 3) {
            $key = round($p[$i], 5).' '.round($p[$i + 1], 5).' '.round($p[$i + 2], 5);
            $at[] = $same[$key] ??= intdiv($i, 3);
        }
        $n = count($index) - 2;
        for ($i = 0; $i < $n; $i += 3) {
            [$a, $b, $c] = [3 * $index[$i], 3 * $index[$i + 1], 3 * $index[$i + 2]];
            $volume += $p[$a] * ($p[$b + 1] * $p[$c + 2] - $p[$b + 2] * $p[$c + 1]) + $p[$a + 1]
                * ($p[$b + 2] * $p[$c] - $p[$b] * $p[$c + 2]) + $p[$a + 2] * ($p[$b] * $p[$c + 1] - $p[$b + 1] * $p[$c]);
            if ($n < 900_000) {
                $t = [$at[$index[$i]], $at[$index[$i + 1]], $at[$index[$i + 2]]];
                for ($k = 0; $k < 3; $k++) {
                    [$u, $v] = [$t[$k], $t[($k + 1) % 3]];
                    if ($u !== $v) {
                        $edge = $u < $v ? $u << 32 | $v : $v << 32 | $u;
                        $edges[$edge] = ($edges[$edge] ?? 0) + 1;
                    }
                }
            }
        }
        $open = 0;
        foreach ($edges as $count) {
            $open += $count === 2 ? 0 : 1;
        }

        // A sheet has a rim that grows with the root of its faces; a body has hardly any.
        return [$volume / 6, $edges !== [] && $open * $open < 0.05 * count($edges)];
    }
}
