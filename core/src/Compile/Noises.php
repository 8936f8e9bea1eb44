<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile;

use CrispReel\Core\Document\Underfoot;
use CrispReel\Core\Geometry\Solids;

/** What is heard of what happens in a scene, from the motions themselves: it goes with every edit. */
final readonly class Noises
{
    /** Metres over a floor at most at which a foot that comes down is on it. */
    private const OVER = 0.14;

    /** Metres a second from which on wheels are heard, those of a cart that is pushed, and frames of a stop that is none. */
    private const ROLLS = 0.12;

    private const PUSHED = 1.1;

    private const STOPS = 6;

    /** Metres a second at which what falls from a table lands. */
    private const FALLS = 3.8;

    public function __construct(private Draft $draft, private Poses $poses, private int $frames)
    {
    }

    /** @return list<Noise> in the order in which they begin */
    public function all(): array
    {
        $out = [];
        foreach ($this->draft->document->items as $id => $item) {
            array_push($out, ...$this->steps((string) $id), ...$this->landings((string) $id), ...$this->rolling((string) $id));
        }
        usort($out, static fn (Noise $a, Noise $b): int => [$a->from, $a->item] <=> [$b->from, $b->item]);

        return $out;
    }

    /** @return list<Noise> */
    private function steps(string $id): array
    {
        $lane = $this->poses->lanes[$id] ?? null;
        if ($lane === null) {
            return [];
        }
        $place = $this->poses->places[$id];
        $rate = $this->draft->document->rate->perSecond();
        $falls = [];
        foreach ($lane->segments as $k => $s) {
            $end = min($s->end, $lane->segments[$k + 1]->start ?? INF, (float) $this->frames);
            $known = Memory::key('falls', [$s->fingerprint(), $lane->figure->blob, $end, $rate]);
            foreach ($this->draft->memory->of($known, fn (): array => Footfalls::of($s, $lane->figure, $end, $rate)) as [$at, $p, $hard]) {
                $falls[] = [$s->start + $at, $place->point($p), $hard];
            }
        }
        if ($falls === []) {
            return [];
        }
        $floors = $this->floors($falls);
        $out = [];
        foreach ($falls as [$at, $p, $hard]) {
            [$under, $height] = self::below($floors, $p) ?? [null, $place->position[1]];
            if (abs($p[1] - $height) < self::OVER) {
                $out[] = new Noise('step', $id, $this->underfoot($under), $at, $at, $hard);
            }
        }

        return $out;
    }

    /**
     * What lies under a sole, which bridges the gaps between planks.
     *
     * @param  array{float, float, float}  $p
     * @return array{string, float}|null
     */
    private static function below(Solids $floors, array $p): ?array
    {
        foreach ([[0.0, 0.0], [0.03, 0.0], [-0.03, 0.0], [0.0, 0.03], [0.0, -0.03]] as [$x, $z]) {
            $found = $floors->under($p[0] + $x, $p[2] + $z, $p[1] + self::OVER);
            if ($found !== null && $found[1] > $p[1] - self::OVER) {
                return $found;
            }
        }

        return null;
    }

    /** @param  non-empty-list<array{float, array{float, float, float}, float}>  $falls */
    private function floors(array $falls): Solids
    {
        [$x, $z] = [array_map(static fn (array $f): float => $f[1][0], $falls), array_map(static fn (array $f): float => $f[1][2], $falls)];

        return $this->draft->around->floors([min($x), min($z), max($x), max($z)]);
    }

    private function underfoot(?string $item): string
    {
        $of = $item === null ? null : $this->draft->document->items[$item] ?? null;

        return match (true) {
            $of === null => Underfoot::OPEN, $of->underfoot !== 'auto' => $of->underfoot,
            default => Underfoot::named($of->name.' '.$this->draft->document->assets[$of->asset]->name),
        };
    }

    /** @return list<Noise> things that were let go */
    private function landings(string $id): array
    {
        $carries = $this->poses->carries[$id] ?? [];
        $rate = $this->draft->document->rate->perSecond();
        $out = [];
        foreach ($carries as $k => $c) {
            [$seconds, $fast] = $c->fall?->hits() ?? [INF, 0.0];
            $at = $c->from + $seconds * $rate;
            $next = $carries[$k + 1] ?? null;
            if (($next !== null && $at > $next->from) || $at >= $this->frames) {
                continue;
            }
            $item = $this->draft->document->items[$id];
            $on = Underfoot::lands($item->name.' '.$this->draft->document->assets[$item->asset]->name);
            $out[] = new Noise('land', $id, $on, $at, $at, min(2.0, $fast / self::FALLS));
        }

        return $out;
    }

    /** @return list<Noise> */
    private function rolling(string $id): array
    {
        $drive = $this->poses->drives[$id] ?? null;
        if ($drive === null || ! $drive->rolls()) {
            return [];
        }
        $rate = $this->draft->document->rate->perSecond();
        [$spans, $open] = [[], null];
        for ($f = 0; $f < min($this->frames, ceil($drive->end())); $f++) {
            if (($drive->way($f + 1.0) - $drive->way((float) $f)) * $rate < self::ROLLS) {
                continue;
            }
            if ($open !== null && $f - $open[1] > self::STOPS) {
                $spans[] = $open;
                $open = null;
            }
            $open = [$open[0] ?? $f, $f + 1];
        }

        return array_map(static fn (array $s): Noise => new Noise(
            'roll', $id, 'wood', (float) $s[0], (float) $s[1],
            min(2.0, ($drive->way($s[1]) - $drive->way($s[0])) * $rate / ($s[1] - $s[0]) / self::PUSHED),
        ), array_values(array_filter([...$spans, $open])));
    }
}
