<?php

declare(strict_types=1);

namespace CrispReel\Core\Kit\Figure;

use CrispReel\Core\Geometry\Surface;
use CrispReel\Core\Math\V3;

/**
 * A piece of a figure: one surface in one paint, skinned, with morph offsets where it belongs to the face.
 *
 * @phpstan-type Vec array{float, float, float}
 * @phpstan-type Rgb array{float, float, float}
 */
final class Part
{
    /**
     * @param  string  $paint  skin, cloth, knit, hair, leather, metal, eye, gloss
     * @param  list<Rgb>  $colours  linear, one a point
     * @param  list<array<string, float>>  $weights  joint name to weight, one a point
     * @param  array<string, list<Vec>>  $morphs  offsets by shape name
     */
    public function __construct(
        public readonly string $name,
        public readonly string $paint,
        public readonly Surface $surface,
        public array $colours,
        public readonly array $weights,
        public readonly array $morphs = [],
        public readonly bool $onHead = false,
    ) {
    }

    /** The same piece on the other side: L and R joints swapped. */
    public function mirrored(string $name): self
    {
        $swap = static fn (string $n): string => match (substr($n, -1)) {
            'L' => substr($n, 0, -1).'R', 'R' => substr($n, 0, -1).'L', default => $n,
        };
        $weights = [];
        foreach ($this->weights as $w) {
            $row = [];
            foreach ($w as $n => $v) {
                $row[$swap($n)] = $v;
            }
            $weights[] = $row;
        }

        return new self($name, $this->paint, $this->surface->mirrored(), $this->colours, $weights, array_map(
            static fn (array $m): array => array_map(V3::mirrored(...), $m), $this->morphs,
        ), $this->onHead);
    }

    /** @param  callable(Vec): Vec  $scale */
    public function scaled(callable $scale, float $size): self
    {
        $s = $this->surface;

        return new self($this->name, $this->paint, new Surface(
            array_map($scale, $s->points),
            $s->normals,
            $s->index,
            [],
            $s->edge,
        ), $this->colours, $this->weights, array_map(
            static fn (array $m): array => array_map(static fn (array $v): array => V3::mul($v, $size), $m), $this->morphs,
        ), $this->onHead);
    }
}
