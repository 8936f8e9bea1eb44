<?php

declare(strict_types=1);

namespace CrispReel\Core\Intake\Troubles;

use CrispReel\Core\Document\Finding;
use CrispReel\Core\Document\Severity;
use CrispReel\Core\Intake\Subject;
use CrispReel\Core\Intake\Trouble;
use CrispReel\Core\Math\V3;

/**
 * Bodies for reckoning collisions, which nobody means to see: told by what they are called, or by being a plain hull around
 * something that is painted.
 */
final class Colliders implements Trouble
{
    private const NAMES = '/colli(sion|der|de)|hit[ _.-]?(box|mesh|volume)|physics[ _.-]?(body|mesh|shape|hull)/i';

    /** Words that say it together with a plain hull's shape; by themselves they may name a ship's hull. */
    private const HINTS = '/(^|[^a-z])(col|hull|phys|physics|bounds?|bounding|blocker|proxy)([^a-z]|$)/i';

    /** More triangles than this no body for collisions has. */
    private const MOST_TRIANGLES = 300;

    /** Share of a hull's box, and of the box of what it stands around, that both have. */
    private const AROUND = 0.6;

    public function code(): string
    {
        return 'colliders';
    }

    public function look(Subject $subject): ?Finding
    {
        $found = self::found($subject);
        $all = array_filter($subject->nodes(), static fn (array $n): bool => $n['mesh'] !== null);
        if ($found === [] || count($found) === count($all)) {
            return null;
        }
        $names = array_values(array_map(static fn (int $i): string => $subject->nodes()[$i]['name'], $found));

        return Finding::ofFile(
            'colliders', Severity::Harms,
            count($names) === 1 ? "\"{$names[0]}\" is a body for collisions." : count($names).' bodies for collisions.',
            'Plain blocks would cover the picture.', [], 'Leave them out', safe: true, unasked: true, names: $names,
        );
    }

    public function mend(Subject $subject, array $with): void
    {
        foreach (self::found($subject) as $i) {
            $subject->left[] = $subject->nodes()[$i]['name'];
        }
        $subject->setNodes(array_fill_keys(self::found($subject), ['mesh' => null, 'skin' => null]));
    }

    /** @return list<int> nodes */
    private static function found(Subject $subject): array
    {
        $solids = [];
        foreach ($subject->solids() as $solid) {
            $solids[$solid['node']][] = $solid;
        }
        $isPainted = array_filter($solids, static fn (array $of): bool => ! self::isPlain($subject, $of)) !== [];
        $out = [];
        foreach ($subject->nodes() as $i => $n) {
            $isHull = static fn (): bool => $isPainted && isset($solids[$i]) && self::isPlain($subject, $solids[$i])
                && self::isHull($solids[$i]) && (preg_match(self::HINTS, $n['name']) === 1 || self::isAround($solids, $i));
            if ($n['mesh'] !== null && (preg_match(self::NAMES, $n['name']) === 1 || $isHull())) {
                $out[] = $i;
            }
        }

        return $out;
    }

    /**
     * Without a material, a picture and painted points.
     *
     * @param  list<array{mesh: int, primitive: int, material: int|null, ...}>  $solids
     */
    private static function isPlain(Subject $subject, array $solids): bool
    {
        foreach ($solids as $s) {
            $attributes = $subject->draft->attributes($s['mesh'], $s['primitive']);
            if ($s['material'] !== null || isset($attributes['COLOR_0']) || isset($attributes['TEXCOORD_0'])) {
                return false;
            }
        }

        return true;
    }

    /**
     * Whether all of its points lie on or behind each of its faces, within a hundredth of its size.
     *
     * @param  list<array{positions: list<float>, index: list<int>, ...}>  $solids
     */
    private static function isHull(array $solids): bool
    {
        if (count($solids) !== 1 || count($solids[0]['index']) > 3 * self::MOST_TRIANGLES || count($solids[0]['index']) < 12) {
            return false;
        }
        $p = $solids[0]['positions'];
        [$low, $high] = self::box($solids);
        $least = 0.01 * max(1e-9, V3::distance($low, $high));
        $at = static fn (int $i): array => [$p[3 * $i], $p[3 * $i + 1], $p[3 * $i + 2]];
        foreach (array_chunk($solids[0]['index'], 3) as [$a, $b, $c]) {
            $normal = V3::cross(V3::sub($at($b), $at($a)), V3::sub($at($c), $at($a)));
            if (V3::length($normal) < 1e-12) {
                continue;
            }
            $normal = V3::unit($normal);
            [$before, $behind] = [0.0, 0.0];
            for ($i = 0, $n = intdiv(count($p), 3); $i < $n; $i++) {
                $height = V3::dot(V3::sub($at($i), $at($a)), $normal);
                [$before, $behind] = [max($before, $height), min($behind, $height)];
            }
            // Its faces may look inwards.
            if ($before > $least && $behind < -$least) {
                return false;
            }
        }

        return true;
    }

    /**
     * Whether it stands around another thing of about its size.
     *
     * @param  array<int, list<array{positions: list<float>, ...}>>  $solids
     */
    private static function isAround(array $solids, int $node): bool
    {
        [$low, $high] = self::box($solids[$node]);
        foreach ($solids as $i => $other) {
            [$l, $h] = self::box($other);
            $both = $its = $own = 1.0;
            for ($k = 0; $k < 3; $k++) {
                $both *= max(0.0, min($high[$k], $h[$k]) - max($low[$k], $l[$k]));
                $own *= $high[$k] - $low[$k];
                $its *= $h[$k] - $l[$k];
            }
            if ($i !== $node && $both > self::AROUND * max($own, $its)) {
                return true;
            }
        }

        return false;
    }

    /**
     * @param  list<array{positions: list<float>, ...}>  $solids
     * @return array{array{float, float, float}, array{float, float, float}}
     */
    private static function box(array $solids): array
    {
        [$low, $high] = [[INF, INF, INF], [-INF, -INF, -INF]];
        foreach ($solids as $s) {
            foreach ($s['positions'] as $i => $v) {
                $low[$i % 3] = min($low[$i % 3], $v);
                $high[$i % 3] = max($high[$i % 3], $v);
            }
        }

        return [$low, $high];
    }
}
