<?php

declare(strict_types=1);

namespace CrispReel\Core\Kit\Figure;

use CrispReel\Core\Geometry\Loft;
use CrispReel\Core\Geometry\Sdf\Field;
use CrispReel\Core\Geometry\Surface;
use CrispReel\Core\Kit\Colour;
use CrispReel\Core\Math\V3;

/**
 * Eyes, lids, brows and mouth, each with its morph shapes.
 *
 * @phpstan-type Vec array{float, float, float}
 */
final class FeatureMaker
{
    private readonly Field $head;

    private readonly Field $face;

    public function __construct(private readonly Workshop $shop, Field $head, Field $face)
    {
        $this->head = $this->around($head, 0.05, 0.11);
        $this->face = $this->around($face, -0.09, 0.10);
    }

    /** Only the solids that shape the face near a height: drawing on it is then several times cheaper. */
    private function around(Field $field, float $y, float $radius): Field
    {
        [$cx, $cy, $cz] = $this->shop->body->onFace(0.0, $y, 0.12);
        [, $solids] = $field->near($cx, $cy, $cz, $radius / 2.6);

        return new Field($solids, $field->low, $field->high);
    }

    public function make(): void
    {
        foreach (['L' => 1.0, 'R' => -1.0] as $side => $m) {
            $this->eye($side, $m);
            $this->lids($side, $m);
            $this->brow($side, $m);
        }
        $this->mouth();
    }

    /**
     * The eye's axis leans out by 1.7 degrees: parallel axes look cross-eyed on a small head.
     *
     * @param  Vec  $p
     * @return Vec
     */
    private static function lean(array $p, float $m): array
    {
        $yaw = $m * 0.03;

        return [$p[0] * cos($yaw) + $p[2] * sin($yaw), $p[1], -$p[0] * sin($yaw) + $p[2] * cos($yaw)];
    }

    private function eye(string $side, float $m): void
    {
        $r = $this->shop->body->eyeRadius;
        $e = $this->shop->body->at('eye'.$side);
        $iris = $this->shop->colour('iris');
        $rings = [[0, 'pupil'], [21, 'pupil'], [21, 'iris'], [40, 'rim'], [40, 'white'], [62, 'white'], [95, 'white']];
        $paint = [
            'pupil' => Colour::hex(0x17110F), 'iris' => V3::mul($iris, 1.25), 'rim' => V3::mul($iris, 0.55),
            'white' => Colour::hex(0xECE2D2),
        ];
        $points = [];
        $colours = [];
        foreach ($rings as [$degrees, $name]) {
            for ($i = 0; $i < 14; $i++) {
                $a = $i / 14 * 2 * M_PI;
                $t = deg2rad((float) $degrees);
                $dir = self::lean([sin($t) * cos($a), sin($t) * sin($a), cos($t)], $m);
                $points[] = V3::addScaled($e, $dir, $r * ($degrees < 41 ? 1.015 : 1.0));
                $colours[] = $paint[$name];
            }
        }
        $index = [];
        for ($k = 0; $k < count($rings) - 1; $k++) {
            for ($i = 0; $i < 14; $i++) {
                $a = $k * 14 + $i;
                $b = $k * 14 + ($i + 1) % 14;
                array_push($index, $a, $a + 14, $b + 14, $a, $b + 14, $b);
            }
        }
        $normals = array_map(static fn (array $p): array => V3::unit(V3::sub($p, $e)), $points);
        $this->shop->parts['eye'.$side] = new Part(
            'eye'.$side, 'eye', new Surface($points, $normals, $index), $colours, array_fill(0, count($points), ['eye'.$side => 1.0]), [],
            true,
        );
        $this->glint($side, $m, $e, $r);
    }

    /** @param  Vec  $e */
    private function glint(string $side, float $m, array $e, float $r): void
    {
        $d = V3::unit(self::lean([-0.26, 0.34, 0.9], $m));
        $t = V3::unit(V3::cross($d, [0.0, 1.0, 0.0]));
        $b = V3::cross($t, $d);
        $points = [V3::addScaled($e, $d, $r * 1.05)];
        $index = [];
        for ($i = 0; $i < 8; $i++) {
            $a = $i / 8 * 2 * M_PI;
            $dir = V3::unit(V3::addScaled(V3::addScaled($d, $t, cos($a) * 0.17), $b, sin($a) * 0.17));
            $points[] = V3::addScaled($e, $dir, $r * 1.035);
            array_push($index, 0, 1 + ($i + 1) % 8, 1 + $i);
        }
        $disc = Surface::facing($points, $index, array_fill(0, 9, $d));
        $this->shop->crisp('glint'.$side, 'eye', $disc, [1.0, 0.97, 0.9], 'head', [], true);
    }

    private function lids(string $side, float $m): void
    {
        $old = $this->shop->spec()->age > 0.6 ? 1 : 0;
        $r = $this->shop->body->eyeRadius;
        $blink = 'blink'.$side;
        $this->lid('lidTop'.$side, $side, $m, 24.0 + $old, 125.0, $r * 1.11, [
            $blink => -14.0, 'browsUp' => 40.0, 'browsDown' => 10.0, 'smile' => 20.0 + 2 * $old, 'frown' => 18.0,
        ]);
        $this->lid('lidLow'.$side, $side, $m, -30.0 - 6 * $old, -110.0, $r * 1.10, [
            $blink => -16.0, 'smile' => -22.0 - 4 * $old,
        ]);
    }

    /**
     * A spherical sector hinged left to right, from the open edge back to behind the ball.
     *
     * @param  float  $edge  degrees above the axis
     * @param  array<string, float>  $shapes  edge by morph
     */
    private function lid(string $name, string $side, float $m, float $edge, float $back, float $radius, array $shapes): void
    {
        $e = $this->shop->body->at('eye'.$side);
        $r = $this->shop->body->eyeRadius;
        $sector = static function (float $edge) use ($e, $r, $back, $radius, $m): array {
            $out = [];
            for ($j = 0; $j <= 5; $j++) {
                for ($i = 0; $i <= 10; $i++) {
                    $th = deg2rad(6 + 168 * $i / 10);
                    $ph = deg2rad($j <= 4 ? $back + ($edge - $back) * $j / 4 : $edge);
                    $rr = $j > 4 ? $r * 0.99 : $radius;
                    $out[] = V3::add($e, self::lean([cos($th) * $rr, sin($th) * sin($ph) * $rr, sin($th) * cos($ph) * $rr], $m));
                }
            }

            return $out;
        };
        $points = $sector($edge);
        $surface = Surface::facing($points, Loft::gridIndex(10, 5), array_map(static fn (array $p): array => V3::sub($p, $e), $points));
        $morphs = [];
        foreach ($shapes as $shape => $to) {
            $morphs[$shape] = array_map(V3::sub(...), $sector($to), $points);
        }
        $skin = $this->shop->colour('skin');
        $blush = $this->shop->colour('blush');
        $rim = str_starts_with($name, 'lidTop') ? Colour::hex(0x4A2C22) : V3::mix($skin, $blush, 0.6);
        $colours = [];
        foreach ($points as $i => $_) {
            $colours[] = intdiv($i, 11) >= 4 ? $rim : V3::mix($skin, $blush, 0.25);
        }
        $this->shop->parts[$name] = new Part(
            $name, 'skin', $surface, $colours, array_fill(0, count($points), ['head' => 1.0]), $morphs, true,
        );
    }

    private function brow(string $side, float $m): void
    {
        $thick = $this->shop->spec()->beard ? 1.0 : 0.0;
        $base = 0.055 - 0.008 * $thick;
        $tilt = -0.004 + 0.001 * $thick;
        $line = function (float $lift, float $angle) use ($m, $base): array {
            $out = [];
            for ($i = 0; $i < 7; $i++) {
                $t = $i / 6;
                $y = $base + $lift + sin($t * 2.6) * 0.010 - $t * 0.006 + $angle * ($t - 0.5);
                $p = $this->head->project($this->shop->body->face[0] + $m * (0.020 + 0.062 * $t), $this->shop->body->face[1] + $y);
                $out[] = V3::addScaled($p, $this->head->normal($p), 0.004);
            }

            return $out;
        };
        $rest = $this->browLoft($line(0.0, $tilt), $thick);
        $morphs = [];
        foreach ([
            'browsUp' => [0.016, -0.006], 'browsDown' => [-0.011, 0.022], 'smile' => [0.003, -0.004], 'frown' => [0.002, -0.018],
        ] as $shape => [$lift, $angle]) {
            $morphs[$shape] = array_map(V3::sub(...), $this->browLoft($line($lift, $tilt + $angle), $thick)->points, $rest->points);
        }
        $this->shop->crisp('brow'.$side, 'hair', $rest, $this->shop->colour('brow'), 'head', $morphs, true);
    }

    /** @param  list<Vec>  $path */
    private function browLoft(array $path, float $thick): Surface
    {
        $bulge = static fn (float $wide): \Closure => static fn (float $t): float => $wide * (0.55 + 0.75 * sin(M_PI * (0.12 + 0.80 * $t)));

        return Loft::sweep(
            $path,
            fn (int $i): array => $this->head->normal($path[$i]),
            $bulge(0.0062 + 0.0043 * $thick),
            $bulge(0.0043 + 0.003 * $thick),
            6,
        );
    }

    /** Inside of the mouth (teeth, dark, tongue) and two lip rolls, drawn on the face anew for each shape. */
    private function mouth(): void
    {
        $inner = $this->mouthInside([...Face::REST, 0.0, 0.0], '');
        $index = Surface::flipped(Loft::gridIndex(14, 5));
        $rows = [0xE9DCC4, 0xE9DCC4, 0x4A1C1A, 0x3A1413, 0x9C4A45, 0x9C4A45];
        $colours = [];
        foreach ($inner as $i => $_) {
            $colours[] = Colour::hex($rows[intdiv($i, 15)]);
        }
        $surface = new Surface($inner, array_fill(0, count($inner), [0.0, 0.0, 1.0]), $index);
        $morphs = [];
        foreach (Face::MOUTHS as $shape => $m) {
            $morphs[$shape] = array_map(V3::sub(...), $this->mouthInside($m, $shape), $inner);
        }
        $this->shop->parts['mouth'] = new Part(
            'mouth', 'gloss', $surface, $colours, array_fill(0, count($inner), ['head' => 1.0]), $morphs, true,
        );
        $this->lip('lipTop', true);
        $this->lip('lipLow', false);
    }

    /**
     * @param  list<float>  $m  half width, corner lift, upper and lower opening
     */
    private function lipY(array $m, float $u, bool $upper): float
    {
        $base = $this->shop->spec()->beard ? -0.098 : -0.081;
        $open = max(0.0, 1 - $u * $u) ** 0.75;

        return $base + $m[1] * $u * $u + ($upper ? $m[2] * $open : -$m[3] * $open);
    }

    /** @return Vec */
    private function onFace(float $x, float $y, float $out): array
    {
        $c = $this->shop->body->face;
        $p = $this->face->project($c[0] + $x, $c[1] + $y);

        return V3::addScaled($p, $this->face->normal($p, 0.004), $out);
    }

    /**
     * The chin has dropped under an open mouth: drawn points go with it.
     *
     * @param  Vec  $p
     * @return Vec
     */
    private function dropped(array $p, string $shape): array
    {
        return $shape === '' ? $p : V3::add($p, Face::follow($shape, V3::sub($p, $this->shop->body->face)));
    }

    /**
     * @param  list<float>  $m
     * @return list<Vec>
     */
    private function mouthInside(array $m, string $shape): array
    {
        $width = $this->shop->spec()->beard ? 0.92 : 1.0;
        $out = [];
        for ($j = 0; $j <= 5; $j++) {
            for ($i = 0; $i <= 14; $i++) {
                $u = ($i / 14 * 2 - 1) * 0.99;
                $top = $this->lipY($m, $u, true) + 0.001;
                $low = $this->lipY($m, $u, false) - 0.001;
                $out[] = $this->dropped($this->onFace($m[0] * $width * $u, $top + ($low - $top) * $j / 5, 0.0022), $shape);
            }
        }

        return $out;
    }

    private function lip(string $name, bool $upper): void
    {
        $rest = $this->lipRoll([...Face::REST, 0.0, 0.0], '', $upper);
        $morphs = [];
        foreach (Face::MOUTHS as $shape => $m) {
            $morphs[$shape] = array_map(V3::sub(...), $this->lipRoll($m, $shape, $upper)->points, $rest->points);
        }
        $beard = $this->shop->spec()->beard;
        $colour = V3::mix($this->shop->colour('skin'), $this->shop->colour('lip'), $beard ? 0.5 : 0.6);
        $this->shop->crisp($name, 'skin', $rest, $colour, 'head', $morphs, true);
    }

    /** @param  list<float>  $m */
    private function lipRoll(array $m, string $shape, bool $upper): Surface
    {
        $beard = $this->shop->spec()->beard;
        $r = $upper ? ($beard ? 0.0030 : 0.0040) : ($beard ? 0.0056 : 0.0052);
        $width = $beard ? 0.92 : 1.0;
        $path = [];
        for ($i = 0; $i <= 10; $i++) {
            $u = $i / 5 - 1;
            $y = $this->lipY($m, $u, $upper) + ($upper ? 0.0022 : -0.0026) * (1 - $u * $u);
            $path[] = $this->dropped($this->onFace($m[0] * $width * $u * 1.02, $y, 0.0012), $shape);
        }
        $thick = static fn (float $t): float => $r * (0.30 + 0.85 * sin(M_PI * $t));

        return Loft::sweep($path, static fn (): array => [0.0, 0.0, 1.0], $thick, $thick, 6);
    }
}
