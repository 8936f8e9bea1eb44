<?php

declare(strict_types=1);

namespace CrispReel\Core\Intake;

use CrispReel\Core\Math\M4;
use CrispReel\Core\Math\Q4;

/**
 * Grows, turns and moves a whole file: p becomes turn(p) x scale + move. Done to roots, and through to points, bind
 * matrices, shapes and keys of skinned files, so that joints stay without scale.
 *
 * @phpstan-import-type Vec from Subject
 */
final class Placing
{
    /**
     * @param  array{float, float, float, float}  $turn
     * @param  Vec  $move
     */
    public static function apply(
        Subject $subject,
        float $scale = 1.0,
        array $turn = [0.0, 0.0, 0.0, 1.0],
        array $move = [0.0, 0.0, 0.0],
    ): void {
        $whole = M4::compose($move, $turn, [$scale, $scale, $scale]);
        $joints = array_flip($subject->isFigure() ? $subject->joints() : []);
        if ($joints !== []) {
            self::points($subject, $whole);
        }
        self::keys($subject, $whole, $turn, $scale, $joints);
        $changes = [];
        foreach ($subject->nodes() as $i => $n) {
            $skinned = $joints !== [] && $n['skin'] !== null;
            if ($skinned) {
                continue;
            }
            if ($n['parent'] === -1) {
                $changes[$i] = [
                    'translation' => M4::point($whole, $n['translation']), 'rotation' => Q4::unit(Q4::mul($turn, $n['rotation'])),
                ];
                $changes[$i] += isset($joints[$i])
                    ? []
                    : ['scale' => [$n['scale'][0] * $scale, $n['scale'][1] * $scale, $n['scale'][2] * $scale]];
            } elseif (isset($joints[$n['parent']])) {
                $changes[$i] = ['translation' => [
                    $n['translation'][0] * $scale, $n['translation'][1] * $scale, $n['translation'][2] * $scale,
                ]];
                $changes[$i] += isset($joints[$i])
                    ? []
                    : ['scale' => [$n['scale'][0] * $scale, $n['scale'][1] * $scale, $n['scale'][2] * $scale]];
            }
        }
        $subject->setNodes($changes);
        if ($joints !== []) {
            $inverse = [];
            foreach ($subject->joints() as $j) {
                array_push($inverse, ...Settle::inverse($subject->world($j)));
            }
            // In the order of the skin's own list, which settling has put parents first.
            $subject->draft->json['skins'] = [[
                'joints' => $subject->joints(), 'inverseBindMatrices' => $subject->draft->add($inverse, 16),
            ]];
            $subject->touched();
        }
    }

    /** @param  list<float>  $whole */
    private static function points(Subject $subject, array $whole): void
    {
        $draft = $subject->draft;
        [, $q, $s] = M4::decompose($whole);
        $linear = M4::compose([0.0, 0.0, 0.0], $q, $s);
        $rotation = M4::compose([0.0, 0.0, 0.0], $q, [1.0, 1.0, 1.0]);
        foreach ($draft->primitives() as $p) {
            $a = $p['attributes'];
            if (! isset($a['POSITION'], $a['JOINTS_0'])) {
                continue;
            }
            $a['POSITION'] = $draft->add(Subject::moved($draft->values($a['POSITION']), $whole), 3);
            if (isset($a['NORMAL'])) {
                $a['NORMAL'] = $draft->add(Subject::moved($draft->values($a['NORMAL']), $rotation), 3);
            }
            $targets = array_map(static function (array $t) use ($draft, $linear, $rotation): array {
                if (isset($t['POSITION'])) {
                    $t['POSITION'] = $draft->add(Subject::moved($draft->values($t['POSITION']), $linear), 3);
                }
                if (isset($t['NORMAL'])) {
                    $t['NORMAL'] = $draft->add(Subject::moved($draft->values($t['NORMAL']), $rotation), 3);
                }

                return $t;
            }, $p['targets']);
            $draft->amendPrimitive($p['mesh'], $p['primitive'], ['attributes' => $a] + ($targets === [] ? [] : ['targets' => $targets]));
        }
    }

    /**
     * @param  list<float>  $whole
     * @param  array{float, float, float, float}  $turn
     * @param  array<int, int>  $joints
     */
    private static function keys(Subject $subject, array $whole, array $turn, float $scale, array $joints): void
    {
        $nodes = $subject->nodes();
        $subject->draft->rewriteKeys(static function (
            int $node, string $path, bool $cubic, array $values,
        ) use ($nodes, $joints, $turn, $whole, $scale): ?array {
            $parent = $nodes[$node]['parent'] ?? -1;
            $root = $parent === -1;
            $grows = $path === 'translation' || ($path === 'scale' && ! isset($joints[$node]));
            if (! ($path === 'rotation' && $root) && ! ($grows && ($root || isset($joints[$parent])))) {
                return null;
            }
            $out = [];
            foreach (array_chunk($values, $path === 'rotation' ? 4 : 3) as $i => $row) {
                if ($path === 'rotation') {
                    array_push($out, ...Q4::mul($turn, [$row[0], $row[1], $row[2], $row[3] ?? 1.0]));

                    continue;
                }
                $grown = [$row[0] * $scale, $row[1] * $scale, $row[2] * $scale];
                array_push($out, ...match (true) {
                    $path === 'scale' || ! $root => $grown,
                    // A tangent is a direction: it turns and grows, and does not move.
                    $cubic && $i % 3 !== 1 => Q4::rotate($turn, $grown),
                    default => M4::point($whole, [$row[0], $row[1], $row[2]]),
                });
            }

            return $out;
        });
    }
}
