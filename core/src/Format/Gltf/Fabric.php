<?php

declare(strict_types=1);

namespace CrispReel\Core\Format\Gltf;

use CrispReel\Core\Math\V3;
use InvalidArgumentException;

/**
 * A piece of cloth at rest: particles where the surface's vertices are (vertices at one place are one particle, in order of
 * first appearance), threads along the edges, and braces across every two neighbouring triangles. Metres and kilograms.
 */
final readonly class Fabric
{
    /** Particles that are settled in a time that a person waits. */
    public const MOST = 3000;

    /** Kilograms of a square metre unless the file says otherwise. */
    private const DENSITY = 0.22;

    /** Share of the speed that is lost in a second, unless the file says otherwise. */
    private const DAMPING = 0.6;

    /**
     * @param  list<float>  $rest  3 numbers a particle
     * @param  list<int>  $triangles  3 particles each
     * @param  list<float>  $mass  kilograms by particle
     * @param  list<float>  $pins  0 free to 1 fixed, by particle
     * @param  list<int>  $threads  pairs of particles that keep their distance
     * @param  list<int>  $braces  pairs of particles that keep it softly: resistance to bending
     * @param  float  $bend  0 falls like silk to 1 stands like card
     * @param  string|null  $worn  the human role that it is worn on
     * @param  list<int>  $ofVertex  particle of each vertex in the file
     * @param  array<int, array{int, float}>  $tethers  by free particle: the pinned one that is nearest along the threads, and how far
     * @param  float  $catch  how well it catches the wind, 1 as a plain sheet
     * @param  float  $damping  share of its speed that is lost in a second
     * @param  list<array{int, int, int, int}>  $hinges  edges between two triangles, and the points across
     */
    public function __construct(
        public array $rest,
        public array $triangles,
        public array $mass,
        public array $pins,
        public array $threads,
        public array $braces,
        public float $bend = 0.05,
        public ?string $worn = null,
        public array $ofVertex = [],
        public array $tethers = [],
        public float $catch = 1.0,
        public float $damping = self::DAMPING,
        public array $hinges = [],
    ) {
    }

    public function count(): int
    {
        return count($this->mass);
    }

    /**
     * The first surface of a file whose extras hold "cloth": {"pins": [{"low": [x, y, z], "high": [x, y, z], "weight": 1}],
     * "kilogramsPerSquareMetre": 0.22, "bend": 0.05, "catch": 1, "damping": 0.6, "worn": "upperChest"}. Particles inside a box are pinned.
     *
     * @param  array<array-key, mixed>  $facts
     */
    public static function of(GltfReader $gltf, array $facts): self
    {
        $all = $gltf->primitives();
        if (count($all) !== 1) {
            throw new InvalidArgumentException('A cloth is one surface; this file has '.count($all).'. Join its surfaces into one.');
        }
        [, $surface] = $all[0];

        return self::make($surface['positions'], $surface['index'], $facts);
    }

    /**
     * @param  list<float>  $positions
     * @param  list<int>  $index
     * @param  array<array-key, mixed>  $facts
     */
    public static function make(array $positions, array $index, array $facts = []): self
    {
        $known = $rest = $of = [];
        for ($i = 0, $n = count($positions); $i < $n; $i += 3) {
            $key = pack('g3', $positions[$i], $positions[$i + 1], $positions[$i + 2]);
            if (! isset($known[$key])) {
                $known[$key] = count($known);
                array_push($rest, $positions[$i], $positions[$i + 1], $positions[$i + 2]);
            }
            $of[] = $known[$key];
        }
        $triangles = [];
        for ($i = 0, $n = count($index); $i < $n; $i += 3) {
            [$a, $b, $c] = [$of[$index[$i]], $of[$index[$i + 1]], $of[$index[$i + 2]]];
            if ($a !== $b && $b !== $c && $a !== $c) {
                array_push($triangles, $a, $b, $c);
            }
        }
        [$threads, $braces, $hinges] = self::woven($triangles);
        $pins = self::pinned($rest, is_array($facts['pins'] ?? null) ? $facts['pins'] : []);
        [$tethers, $far] = self::tethered($rest, $threads, $pins);
        $number = static fn (string $key, float $default): float => is_int($facts[$key] ?? null) || is_float($facts[$key] ?? null)
            ? (float) $facts[$key]
            : $default;

        return new self(
            $rest, $triangles, self::masses($rest, $triangles, $number('kilogramsPerSquareMetre', self::DENSITY)), $pins,
            self::fromPins($threads, $far), self::fromPins($braces, $far), $number('bend', 0.05),
            is_string($facts['worn'] ?? null) ? $facts['worn'] : null, $of, $tethers,
            max(0.0, $number('catch', 1.0)), max(0.0, min(0.99, $number('damping', self::DAMPING))), $hinges,
        );
    }

    /**
     * @param  list<int>  $triangles
     * @return array{list<int>, list<int>, list<array{int, int, int, int}>}
     */
    private static function woven(array $triangles): array
    {
        $across = [];
        for ($i = 0, $n = count($triangles); $i < $n; $i += 3) {
            for ($k = 0; $k < 3; $k++) {
                [$a, $b, $c] = [$triangles[$i + $k], $triangles[$i + ($k + 1) % 3], $triangles[$i + ($k + 2) % 3]];
                $across[min($a, $b).' '.max($a, $b)][] = $c;
            }
        }
        $threads = $braces = $hinges = [];
        foreach ($across as $edge => $opposite) {
            [$a, $b] = array_map(intval(...), explode(' ', $edge));
            array_push($threads, $a, $b);
            if (count($opposite) === 2 && $opposite[0] !== $opposite[1]) {
                array_push($braces, $opposite[0], $opposite[1]);
                $hinges[] = [$a, $b, $opposite[0], $opposite[1]];
            }
        }

        return [$threads, $braces, $hinges];
    }

    /**
     * The nearest pin of every particle along the threads (Dijkstra 1959): cloth that hangs on it is never farther away.
     *
     * @param  list<float>  $rest
     * @param  list<int>  $threads
     * @param  list<float>  $pins
     * @return array{array<int, array{int, float}>, array<int, float>} tethers, and the way of every particle to a pin
     */
    private static function tethered(array $rest, array $threads, array $pins): array
    {
        $next = [];
        for ($i = 0, $n = count($threads); $i < $n; $i += 2) {
            [$a, $b] = [$threads[$i], $threads[$i + 1]];
            $d = V3::distance([$rest[3 * $a], $rest[3 * $a + 1], $rest[3 * $a + 2]], [$rest[3 * $b], $rest[3 * $b + 1], $rest[3 * $b + 2]]);
            $next[$a][$b] = $next[$b][$a] = $d;
        }
        $queue = new \SplPriorityQueue;
        $queue->setExtractFlags(\SplPriorityQueue::EXTR_BOTH);
        $far = $pin = [];
        foreach ($pins as $p => $weight) {
            if ($weight >= 1.0) {
                $queue->insert([$p, $p], 0.0);
            }
        }
        while (! $queue->isEmpty()) {
            /** @var array{data: array{int, int}, priority: float} $top */
            $top = $queue->extract();
            [[$p, $from], $d] = [$top['data'], -$top['priority']];
            if (isset($far[$p])) {
                continue;
            }
            [$far[$p], $pin[$p]] = [$d, $from];
            foreach ($next[$p] ?? [] as $q => $length) {
                if (! isset($far[$q])) {
                    $queue->insert([$q, $from], -($d + $length));
                }
            }
        }
        $tethers = [];
        foreach ($far as $p => $d) {
            if ($d > 0.0) {
                $tethers[$p] = [$pin[$p], $d];
            }
        }

        return [$tethers, $far];
    }

    /**
     * Pairs in order from the pins outward, so that one pass hands a pull down the whole cloth.
     *
     * @param  list<int>  $pairs
     * @param  array<int, float>  $far
     * @return list<int>
     */
    private static function fromPins(array $pairs, array $far): array
    {
        $chunks = array_chunk($pairs, 2);
        $way = [];
        foreach ($chunks as $k => $c) {
            $way[$k] = ($far[$c[0]] ?? 1e9) + ($far[$c[1] ?? $c[0]] ?? 1e9);
        }
        array_multisort($way, SORT_ASC, array_keys($chunks), SORT_ASC, $chunks);

        return array_merge(...$chunks);
    }

    /**
     * A third of each triangle's mass for each corner.
     *
     * @param  list<float>  $rest
     * @param  list<int>  $triangles
     * @return list<float>
     */
    private static function masses(array $rest, array $triangles, float $density): array
    {
        $mass = array_fill(0, intdiv(count($rest), 3), 0.0);
        $at = static fn (int $p): array => [$rest[3 * $p], $rest[3 * $p + 1], $rest[3 * $p + 2]];
        for ($i = 0, $n = count($triangles); $i < $n; $i += 3) {
            [$a, $b, $c] = [$triangles[$i], $triangles[$i + 1], $triangles[$i + 2]];
            $area = 0.5 * V3::length(V3::cross(V3::sub($at($b), $at($a)), V3::sub($at($c), $at($a))));
            foreach ([$a, $b, $c] as $p) {
                $mass[$p] += $area * $density / 3;
            }
        }

        return array_values(array_map(static fn (float $m): float => max($m, 1e-5), $mass));
    }

    /**
     * @param  list<float>  $rest
     * @param  array<mixed>  $boxes
     * @return list<float>
     */
    private static function pinned(array $rest, array $boxes): array
    {
        $boxes = array_map(self::box(...), array_values($boxes));
        $out = [];
        for ($i = 0, $n = count($rest); $i < $n; $i += 3) {
            $weight = 0.0;
            foreach ($boxes as [$low, $high, $full]) {
                $inside = true;
                for ($k = 0; $k < 3; $k++) {
                    $inside = $inside && $rest[$i + $k] >= $low[$k] - 1e-6 && $rest[$i + $k] <= $high[$k] + 1e-6;
                }
                $weight = $inside ? max($weight, $full) : $weight;
            }
            $out[] = $weight;
        }

        return $out;
    }

    /** @return array{list<float>, list<float>, float} low and high corner, weight */
    private static function box(mixed $box): array
    {
        $corner = static function (mixed $c): array {
            $out = [];
            foreach (is_array($c) ? $c : [] as $v) {
                if (is_int($v) || is_float($v)) {
                    $out[] = (float) $v;
                }
            }

            return count($out) === 3
                ? $out
                : throw new InvalidArgumentException('A pin of a cloth is a box with "low" and "high", three numbers each.');
        };
        $box = is_array($box) ? $box : [];
        $weight = $box['weight'] ?? 1.0;

        return [
            $corner($box['low'] ?? null), $corner($box['high'] ?? null),
            is_int($weight) || is_float($weight) ? min(1.0, max(0.0, (float) $weight)) : 1.0,
        ];
    }
}
