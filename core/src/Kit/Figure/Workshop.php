<?php

declare(strict_types=1);

namespace CrispReel\Core\Kit\Figure;

use Closure;
use CrispReel\Core\Geometry\Sdf\Field;
use CrispReel\Core\Geometry\Sdf\SurfaceNet;
use CrispReel\Core\Geometry\Surface;
use CrispReel\Core\Kit\Colour;
use CrispReel\Core\Math\V3;

/**
 * The bench on which a figure is put together: its body, its parts so far, and the fields that shade each other.
 *
 * @phpstan-type Vec array{float, float, float}
 * @phpstan-type Rgb array{float, float, float}
 * @phpstan-type Weights array<string, float>
 */
final class Workshop
{
    /** @var array<string, Part> */
    public array $parts = [];

    /** @var list<Field> what casts occlusion */
    public array $fields = [];

    public readonly SkinWeights $skin;

    public function __construct(public readonly Body $body)
    {
        $this->skin = new SkinWeights($body);
    }

    /** @return Rgb */
    public function colour(string $part, float $gain = 1.0): array
    {
        return V3::mul(Colour::hex($this->body->spec->colours[$part] ?? 0x888888), $gain);
    }

    public function spec(): FigureSpec
    {
        return $this->body->spec;
    }

    /**
     * Meshes a field and skins it.
     *
     * @param  Closure(Vec): Weights  $weights
     * @param  list<string>  $morphs  shapes this piece follows
     */
    public function soft(
        string $name, string $paint, Field $field, float $cell, string $colour, Closure $weights, int $smoothing = 0, array $morphs = [],
        bool $occludes = true, bool $onHead = false,
    ): Part {
        $mesh = SurfaceNet::mesh($field, $cell);
        $rows = array_map($weights, $mesh->points);
        $rows = $smoothing > 0
            ? SkinWeights::smoothed($rows, $mesh->neighbours, $smoothing)
            : array_map(SkinWeights::normalised(...), $rows);
        $base = $this->colour($colour);
        $colours = array_map(static fn (array $p): array => $field->colour($p[0], $p[1], $p[2], $base), $mesh->points);
        if ($occludes) {
            $this->fields[] = $field;
        }
        $face = $this->body->face;
        $offsets = [];
        foreach ($morphs as $shape) {
            $offsets[$shape] = array_map(static fn (array $p): array => Face::follow($shape, V3::sub($p, $face)), $mesh->points);
        }

        return $this->parts[$name] = new Part($name, $paint, $mesh, $colours, $rows, $offsets, $onHead);
    }

    /**
     * Adds a crisp piece in one colour.
     *
     * @param  Rgb  $colour
     * @param  list<Weights>|string  $weights  one row a point, or one joint for all
     * @param  array<string, list<Vec>>  $morphs
     */
    public function crisp(
        string $name, string $paint, Surface $surface, array $colour, array|string $weights, array $morphs = [], bool $onHead = false,
    ): Part {
        $n = count($surface->points);
        $rows = is_string($weights) ? array_fill(0, $n, [$weights => 1.0]) : $weights;

        return $this->parts[$name] = new Part($name, $paint, $surface, array_fill(0, $n, $colour), $rows, $morphs, $onHead);
    }

    public function mirror(string $name, string $as): void
    {
        $this->parts[$as] = $this->parts[$name]->mirrored($as);
    }

    /**
     * Weights copied from the three nearest points of a host piece.
     *
     * @param  list<Vec>  $points
     * @return list<Weights>
     */
    public function attached(string $host, array $points): array
    {
        $hostPoints = $this->parts[$host]->surface->points;
        $hostWeights = $this->parts[$host]->weights;
        $rows = [];
        foreach ($points as [$x, $y, $z]) {
            $best = [1e9, 1e9, 1e9];
            $who = [0, 0, 0];
            foreach ($hostPoints as $i => $q) {
                $dx = $q[0] - $x;
                $dy = $q[1] - $y;
                $dz = $q[2] - $z;
                $d = $dx * $dx + $dy * $dy + $dz * $dz;
                if ($d < $best[2]) {
                    $slot = $d < $best[0] ? 0 : ($d < $best[1] ? 1 : 2);
                    array_splice($best, $slot, 0, [$d]);
                    array_splice($who, $slot, 0, [$i]);
                }
            }
            $sum = [];
            for ($k = 0; $k < 3; $k++) {
                $share = 1 / (sqrt($best[$k]) + 0.004);
                foreach ($hostWeights[$who[$k]] as $n => $w) {
                    $sum[$n] = ($sum[$n] ?? 0.0) + $w * $share;
                }
            }
            $rows[] = SkinWeights::normalised($sum);
        }

        return $rows;
    }

    /**
     * A domed button on a field.
     *
     * @param  Vec  $at
     */
    public function button(string $name, string $host, Field $field, array $at, float $radius, string $colour, bool $onHead = false): void
    {
        $n = $field->normal($at);
        $t = V3::unit(V3::cross($n, [0.0, 1.0, 0.0]));
        $b = V3::cross($n, $t);
        $points = [V3::addScaled($at, $n, 0.010)];
        foreach ([[0.62, 0.0095], [1.0, 0.006], [1.0, -0.002]] as [$r, $height]) {
            for ($i = 0; $i < 10; $i++) {
                $a = $i / 10 * 2 * M_PI;
                $p = V3::addScaled($at, $n, $height);
                $points[] = V3::addScaled(V3::addScaled($p, $t, cos($a) * $r * $radius), $b, sin($a) * $r * $radius);
            }
        }
        $index = [];
        for ($i = 0; $i < 10; $i++) {
            $j = ($i + 1) % 10;
            array_push($index, 0, 1 + $i, 1 + $j);
            foreach ([1, 11] as $o) {
                array_push($index, $o + $i, $o + 10 + $i, $o + 10 + $j, $o + $i, $o + 10 + $j, $o + $j);
            }
        }
        $surface = Surface::facing($points, $index, array_fill(0, count($points), $n));
        $weights = array_fill(0, count($points), $this->attached($host, [$at])[0]);
        $this->crisp($name, 'metal', $surface, $this->colour($colour), $weights, [], $onHead);
    }

    /**
     * Closed ring of points around a centre, for cuffs and boot tops.
     *
     * @param  Vec  $centre
     * @param  Vec  $u
     * @param  Vec  $v
     * @return list<Vec>
     */
    public static function ring(array $centre, array $u, array $v, float $radius, int $count): array
    {
        $points = [];
        for ($i = 0; $i < $count; $i++) {
            $a = $i / $count * 2 * M_PI;
            $points[] = V3::addScaled(V3::addScaled($centre, $u, cos($a) * $radius), $v, sin($a) * $radius);
        }

        return $points;
    }

    /**
     * Ambient occlusion from every field at three heights above the skin, darkening the painted colour.
     */
    public function shade(): void
    {
        foreach ($this->parts as $part) {
            if ($part->paint === 'eye') {
                continue;
            }
            foreach ($part->surface->points as $i => $p) {
                $n = $part->surface->normals[$i];
                $o = 0.0;
                foreach ([[0.018, 0.30], [0.045, 0.32], [0.10, 0.30]] as [$h, $w]) {
                    $d = $this->clearance($p[0] + $n[0] * $h, $p[1] + $n[1] * $h, $p[2] + $n[2] * $h, $h);
                    $o += $w * max(0.0, min(1.0, 1 - $d / $h));
                }
                $a = 1 - 0.62 * min(1.0, $o);
                $c = $part->colours[$i];
                $part->colours[$i] = [$c[0] * ($a * 0.92 + 0.08), $c[1] * $a, $c[2] * $a];
            }
        }
    }

    private function clearance(float $x, float $y, float $z, float $h): float
    {
        $least = $h;
        foreach ($this->fields as $f) {
            $low = $f->low;
            $high = $f->high;
            if (
                $x < $low[0] - $h || $x > $high[0] + $h || $y < $low[1] - $h || $y > $high[1] + $h || $z < $low[2] - $h
                    || $z > $high[2] + $h
            ) {
                continue;
            }
            $d = Field::fold($f->solids, $x, $y, $z);
            if ($d < $least) {
                $least = $d;
            }
        }

        return $least;
    }
}
