<?php

declare(strict_types=1);

namespace CrispReel\Core\Geometry;

use CrispReel\Core\Math\V3;

/**
 * A triangle surface: points, unit normals, three indices a triangle (counter-clockwise from outside).
 *
 * @phpstan-type Vec array{float, float, float}
 */
final class Surface
{
    /**
     * @param  list<Vec>  $points
     * @param  list<Vec>  $normals
     * @param  list<int>  $index
     * @param  list<list<int>>  $neighbours  of each point, where the maker knows them
     * @param  list<float>  $edge  1 on bevels and rims (dry brush), 0 elsewhere; empty means 0 everywhere
     */
    public function __construct(
        public readonly array $points,
        public readonly array $normals,
        public readonly array $index,
        public readonly array $neighbours = [],
        public readonly array $edge = [],
    ) {
    }

    /**
     * Normals from the faces, weighted by area.
     *
     * @param  list<Vec>  $points
     * @param  list<int>  $index
     * @return list<Vec>
     */
    public static function faceNormals(array $points, array $index): array
    {
        $normals = array_fill(0, count($points), [0.0, 0.0, 0.0]);
        for ($i = 0, $n = count($index); $i < $n; $i += 3) {
            [$a, $b, $c] = [$index[$i], $index[$i + 1], $index[$i + 2]];
            $f = V3::cross(V3::sub($points[$b], $points[$a]), V3::sub($points[$c], $points[$a]));
            $normals[$a] = V3::add($normals[$a], $f);
            $normals[$b] = V3::add($normals[$b], $f);
            $normals[$c] = V3::add($normals[$c], $f);
        }

        return array_map(V3::unit(...), $normals);
    }

    /**
     * @param  list<int>  $index
     * @return list<int> every triangle wound the other way
     */
    public static function flipped(array $index): array
    {
        for ($i = 0, $n = count($index); $i < $n; $i += 3) {
            [$index[$i], $index[$i + 1]] = [$index[$i + 1], $index[$i]];
        }

        return array_values($index);
    }

    /**
     * @param  list<Vec>  $points
     * @param  list<int>  $index
     * @param  list<Vec>  $outside  a direction that points outward at each point
     */
    public static function facing(array $points, array $index, array $outside): self
    {
        $normals = self::faceNormals($points, $index);
        $sum = 0.0;
        foreach ($normals as $i => $n) {
            $sum += V3::dot($n, $outside[$i]);
        }
        if ($sum < 0.0) {
            $index = self::flipped($index);
            $normals = array_map(static fn (array $n): array => V3::mul($n, -1.0), $normals);
        }

        return new self($points, $normals, $index);
    }

    /** The same surface, wound so that its faces agree with its normals. */
    public function checked(): self
    {
        $sum = 0.0;
        foreach (self::faceNormals($this->points, $this->index) as $i => $n) {
            $sum += V3::dot($n, $this->normals[$i]);
        }

        return $sum < 0.0
            ? new self($this->points, $this->normals, self::flipped($this->index), $this->neighbours, $this->edge)
            : $this;
    }

    public function mirrored(): self
    {
        return new self(
            array_map(V3::mirrored(...), $this->points),
            array_map(V3::mirrored(...), $this->normals),
            self::flipped($this->index),
            $this->neighbours,
            $this->edge,
        );
    }
}
