<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile;

use CrispReel\Core\Cloth\BodyShape;
use CrispReel\Core\Cloth\ClothSolver;
use CrispReel\Core\Document\AssetSource;
use CrispReel\Core\Document\Item;
use CrispReel\Core\Document\Wind;
use CrispReel\Core\Format\Gltf\Fabric;
use CrispReel\Core\Math\Placement;

/**
 * A cloth through a scene. It has a history, so it is settled from the first frame on, in stretches of one block that are kept
 * by all that reaches into them; any frame is then read from its stretch, the same whichever is asked for first.
 */
final class ClothRun
{
    public const VERSION = 2;

    /** Seconds in which it comes to hang before the first frame. */
    private const SETTLE = 3.0;

    /** Metres in a frame beyond which a change of place is a cut, not a move. */
    private const CUT = 0.6;

    /** @var array<int, string> */
    private array $keys = [];

    /** @var array<int, string> stretches as bytes */
    private array $stretches = [];

    private readonly Wind $wind;

    private readonly float $rate;

    /** @var list<array{int, int, float, float}>|null */
    private ?array $shape = null;

    public function __construct(
        private readonly Poses $scene,
        private readonly Item $item,
        public readonly Fabric $fabric,
        private readonly AssetSource $assets,
    ) {
        $this->wind = $scene->document->wind;
        $this->rate = $scene->document->rate->perSecond();
    }

    public function particles(): int
    {
        return $this->fabric->count();
    }

    /** What stretch $n and all before it are computed from. */
    public function key(int $n): string
    {
        return $this->keys[$n] ??= hash('sha256', json_encode([
            self::VERSION, $this->scene->document->assets[$this->item->asset]->blob, $this->item->cloth?->toArray(),
            $this->wind->toArray(), $this->rate, $n,
            array_map(
                fn (string $id): array => [
                    $this->scene->fingerprint($id, 0, ($n + 1) * CompiledScene::PIECE + 1),
                    $this->scene->document->assets[$this->scene->document->items[$id]->asset]->digest,
                ],
                $this->leansOn(),
            ),
        ], JSON_THROW_ON_ERROR));
    }

    /** @return list<string> the item, who wears it, and all that these hang on */
    private function leansOn(): array
    {
        $found = [$this->item->id => true];
        for ($grown = true; $grown;) {
            $before = count($found);
            foreach ($this->scene->document->links as $l) {
                if (isset($found[$l->child])) {
                    $found[$l->parent] = true;
                }
            }
            foreach ($this->scene->document->contacts as $c) {
                if (isset($found[$c->item]) && $c->target !== null) {
                    $found[$c->target] = true;
                }
            }
            foreach (array_keys($found) as $id) {
                $by = $this->scene->document->items[$id]->route?->by;
                if ($by !== null) {
                    $found[$by] = true;
                }
            }
            $grown = count($found) > $before;
        }
        $out = array_map(strval(...), array_keys($found));
        sort($out);

        return $out;
    }

    /**
     * Where the particles are, in the item's own space; between frames on the straight way.
     *
     * @return list<float> 3 numbers a particle, metres
     */
    public function at(float $frame): array
    {
        $f = max(0, (int) floor($frame));
        $here = $this->frame($f);
        $u = $frame - $f;
        if ($u <= 0.0) {
            return $here;
        }
        $next = $this->frame($f + 1);

        return array_map(static fn (float $a, float $b): float => $a + ($b - $a) * $u, $here, $next);
    }

    /** @return list<float> */
    private function frame(int $f): array
    {
        $n = intdiv($f, CompiledScene::PIECE);
        $size = 24 * $this->fabric->count();

        return self::numbers(substr($this->stretch($n), ($f - $n * CompiledScene::PIECE) * $size, $size));
    }

    private function stretch(int $n): string
    {
        if (isset($this->stretches[$n])) {
            return $this->stretches[$n];
        }
        // The last one that is kept, and on from there.
        $first = $n;
        while ($first >= 0 && ! isset($this->stretches[$first])) {
            $kept = $this->assets->solved($this->key($first));
            if ($kept !== null) {
                $this->stretches[$first] = $kept;
                break;
            }
            $first--;
        }
        for ($k = $first + 1; $k <= $n; $k++) {
            $this->stretches[$k] = $this->settle($k, $k === 0 ? null : $this->stretches[$k - 1]);
            $this->assets->keep($this->key($k), $this->stretches[$k]);
            if ($k > $first + 1) {
                unset($this->stretches[$k - 2]);
            }
        }

        return $this->stretches[$n];
    }

    /** A stretch: the particles of each frame in the item's space, then places and speeds in the world, all as doubles. */
    private function settle(int $n, ?string $before): string
    {
        $f = $n * CompiledScene::PIECE;
        $bytes = '';
        $count = $this->fabric->count();
        $now = $this->scene->at((float) max(0, $f - 1));
        $place = $now->place($this->item->id);
        $solver = new ClothSolver($this->fabric, $this->pins($place), $place->scale);
        if ($before === null) {
            $this->hang($solver, $now, $place);
        } else {
            $state = self::numbers(substr($before, CompiledScene::PIECE * 24 * $count));
            $solver->x = array_slice($state, 0, 3 * $count);
            $solver->v = array_slice($state, 3 * $count);
        }
        [$pins, $bodies] = [$this->pins($place), $this->bodies($now)];
        for ($i = 0; $i < CompiledScene::PIECE; $i++, $f++) {
            if ($f > 0) {
                $then = $this->scene->at((float) $f);
                $there = $then->place($this->item->id);
                [$pinsTo, $bodiesTo] = [$this->pins($there), $this->bodies($then)];
                if (self::apart($place->position, $there->position) > self::CUT) {
                    $solver->carryAlong($there->of($place->inverse()));
                    [$pins, $bodies] = [$pinsTo, $bodiesTo];
                }
                $steps = (int) round(ClothSolver::STEPS * (($f) / $this->rate))
                    - (int) round(ClothSolver::STEPS * (($f - 1) / $this->rate));
                $solver->advance(
                    max(1, $steps), $pins, $pinsTo, $this->winds($solver, $f / $this->rate), $bodies, $bodiesTo, $this->floor($there),
                );
                [$place, $pins, $bodies] = [$there, $pinsTo, $bodiesTo];
            }
            $bytes .= self::bytes($this->inside($place, $solver->x));
        }

        return $bytes.self::bytes($solver->x).self::bytes($solver->v);
    }

    private function hang(ClothSolver $solver, Moment $now, Placement $place): void
    {
        [$pins, $bodies] = [$this->pins($place), $this->bodies($now)];
        for ($k = 0, $turns = (int) round(self::SETTLE * 24); $k < $turns; $k++) {
            $solver->advance(
                intdiv(ClothSolver::STEPS, 24), $pins, $pins, $this->winds($solver, ($k - $turns) / 24), $bodies, $bodies,
                $this->floor($place),
            );
        }
    }

    /** @return list<float> where the cloth at rest would be */
    private function pins(Placement $place): array
    {
        $out = [];
        $r = $this->fabric->rest;
        for ($i = 0, $n = count($r); $i < $n; $i += 3) {
            array_push($out, ...$place->point([$r[$i], $r[$i + 1], $r[$i + 2]]));
        }

        return $out;
    }

    /**
     * @param  array<int, float>  $x
     * @return list<float>
     */
    private function inside(Placement $place, array $x): array
    {
        $back = $place->inverse();
        $out = [];
        for ($i = 0, $n = count($x); $i < $n; $i += 3) {
            array_push($out, ...$back->point([$x[$i], $x[$i + 1], $x[$i + 2]]));
        }

        return $out;
    }

    /** @return list<float> */
    private function winds(ClothSolver $solver, float $seconds): array
    {
        $out = [];
        for ($i = 0, $n = count($solver->x); $i < $n; $i += 3) {
            array_push($out, ...$this->wind->at([$solver->x[$i], $solver->x[$i + 1], $solver->x[$i + 2]], $seconds));
        }

        return $out;
    }

    /** @return list<array{float, float, float, float, float, float, float}> capsules of whoever wears it, in the world */
    private function bodies(Moment $moment): array
    {
        $wearer = $this->wearer();
        if ($wearer === null || ! isset($this->scene->lanes[$wearer])) {
            return [];
        }
        $figure = $this->scene->lanes[$wearer]->figure;
        $this->shape ??= BodyShape::of(
            $figure,
            $this->assets,
            $this->scene->document->assets[$this->scene->document->items[$wearer]->asset],
        );
        $scale = $moment->place($wearer)->scale;
        $out = [];
        foreach ($this->shape as [$a, $b, $radius, $rise]) {
            $from = $moment->joint($wearer, $a);
            $to = $a === $b
                ? [$from->point([0.0, $rise, 0.0]), $from->point([0.0, $rise, 0.0])]
                : [$from->position, $moment->joint($wearer, $b)->position];
            $out[] = [...$to[0], ...$to[1], $radius * $scale];
        }

        return $out;
    }

    private function wearer(): ?string
    {
        foreach ($this->scene->document->links as $l) {
            if ($l->child === $this->item->id && isset($this->scene->lanes[$l->parent])) {
                return $l->parent;
            }
        }

        return null;
    }

    /** Height of what a worn cloth would lie on: where its wearer stands; else the set's ground at its place. */
    private function floor(Placement $place): float
    {
        $wearer = $this->wearer();
        if ($wearer !== null) {
            return $this->scene->places[$wearer]->position[1];
        }

        return min(0.0, $place->position[1] - 5.0);
    }

    /**
     * @param  array{float, float, float}  $a
     * @param  array{float, float, float}  $b
     */
    private static function apart(array $a, array $b): float
    {
        return sqrt(($a[0] - $b[0]) ** 2 + ($a[1] - $b[1]) ** 2 + ($a[2] - $b[2]) ** 2);
    }

    /** @param  array<int, float>  $values */
    private static function bytes(array $values): string
    {
        return pack('e*', ...$values);
    }

    /** @return list<float> */
    private static function numbers(string $bytes): array
    {
        /** @var array<int, float> $out */
        $out = unpack('e*', $bytes);

        return array_values($out);
    }
}
