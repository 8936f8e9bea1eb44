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
            'eye'.$side, 'eye', new Surface($points, $normals, $index), $colours, array_fill(0, count($points), ['eye'.$side => 1.0]),
            // Drawn together with its glint, which sinks.
            ['blink'.$side => array_fill(0, count($points), [0.0, 0.0, 0.0])], true,
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
        // It sinks as the lid comes down: it would show through it.
        $sinks = ['blink'.$side => array_fill(0, 9, V3::mul($d, -0.16 * $r))];
        $this->shop->crisp('glint'.$side, 'eye', $disc, [1.0, 0.97, 0.9], 'head', $sinks, true);
    }

    private function lids(string $side, float $m): void
    {
        $old = $this->shop->spec()->age > 0.6 ? 1 : 0;
        $r = $this->shop->body->eyeRadius;
        $this->lid('lidTop'.$side, $side, $m, 24.0 + $old, 125.0, $r * 1.11, 0);
        $this->lid('lidLow'.$side, $side, $m, -30.0 - 6 * $old, -110.0, $r * 1.10, 1);
    }

    /**
     * A spherical sector hinged left to right, from the open edge back to behind the ball.
     *
     * @param  float  $edge  degrees above the axis
     * @param  int  $which  0 the upper lid, 1 the lower one
     */
    private function lid(string $name, string $side, float $m, float $edge, float $back, float $radius, int $which): void
    {
        $e = $this->shop->body->at('eye'.$side);
        $r = $this->shop->body->eyeRadius;
        $sector = static function (float $edge, float $tilt = 0.0) use ($e, $r, $back, $radius, $m): array {
            $out = [];
            for ($j = 0; $j <= 5; $j++) {
                for ($i = 0; $i <= 10; $i++) {
                    $th = deg2rad(6 + 168 * $i / 10);
                    $at = $edge + $tilt * $m * cos($th);
                    $ph = deg2rad($j <= 4 ? $back + ($at - $back) * $j / 4 : $at);
                    $rr = $j > 4 ? $r * 0.99 : $radius;
                    $out[] = V3::add($e, self::lean([cos($th) * $rr, sin($th) * sin($ph) * $rr, sin($th) * cos($ph) * $rr], $m));
                }
            }

            return $out;
        };
        $points = $sector($edge);
        $surface = Surface::facing($points, Loft::gridIndex(10, 5), array_map(static fn (array $p): array => V3::sub($p, $e), $points));
        $morphs = [];
        foreach (Face::LIDS as $shape => $by) {
            $tilt = $which === 0 ? $by[2] : 0.0;
            if ($by[$which] !== 0.0 || $tilt !== 0.0) {
                $morphs[$shape.$side] = array_map(V3::sub(...), $sector($edge + $by[$which], $tilt), $points);
            }
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
        $line = function (float $inner, float $outer, float $arch, float $in) use ($m, $base, $tilt): array {
            $out = [];
            for ($i = 0; $i < 7; $i++) {
                $t = $i / 6;
                $y = $base + sin($t * 2.6) * 0.010 - $t * 0.006 + $tilt * ($t - 0.5);
                $y += $inner * (1 - $t) + $outer * $t + $arch * sin(M_PI * $t);
                $x = 0.020 + 0.062 * $t - $in * (1 - $t);
                $p = $this->head->project($this->shop->body->face[0] + $m * $x, $this->shop->body->face[1] + $y);
                $out[] = V3::addScaled($p, $this->head->normal($p), 0.004);
            }

            return $out;
        };
        $rest = $this->browLoft($line(0.0, 0.0, 0.0, 0.0), $thick);
        $morphs = [];
        foreach (Face::BROWS as $shape => $by) {
            $morphs[$shape.$side] = array_map(V3::sub(...), $this->browLoft($line(...$by), $thick)->points, $rest->points);
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
        $inner = $this->mouthInside(new MouthForm, '');
        $index = Surface::flipped(Loft::gridIndex(14, 5));
        $rows = [0xE9DCC4, 0xE9DCC4, 0x4A1C1A, 0x3A1413, 0x9C4A45, 0x9C4A45];
        $colours = [];
        foreach ($inner as $i => $_) {
            $colours[] = Colour::hex($rows[intdiv($i, 15)]);
        }
        $surface = new Surface($inner, array_fill(0, count($inner), [0.0, 0.0, 1.0]), $index);
        $this->shop->parts['mouth'] = new Part(
            'mouth', 'gloss', $surface, $colours, array_fill(0, count($inner), ['head' => 1.0]),
            self::morphs(fn (MouthForm $form, string $shape): array => $this->mouthInside($form, $shape)), true,
        );
        $this->lip('lipTop', true);
        $this->lip('lipLow', false);
    }

    /**
     * How far points move with each shape of the mouth. What seals it is the open jaw taken back, point by point: so lips meet
     * while the jaw stays open.
     *
     * @param  callable(MouthForm, string): list<Vec>  $draw
     * @return array<string, list<Vec>>
     */
    private static function morphs(callable $draw): array
    {
        $out = [];
        foreach (Face::mouths() as $shape => [$in, $to]) {
            $out[$shape] = array_map(V3::sub(...), $draw($to, $shape), $draw($in, ''));
        }
        $out['seal'] = array_map(static fn (array $v): array => V3::mul($v, -1.0), $out['jawOpen']);

        return $out;
    }

    /** @return Vec */
    private function onFace(float $x, float $y, float $out): array
    {
        $c = $this->shop->body->face;
        $p = $this->face->project($c[0] + $x, $c[1] + $y);

        return V3::addScaled($p, $this->face->normal($p, 0.004), $out);
    }

    /** Where the middle of the mouth lies on the face. */
    private function line(): float
    {
        return $this->shop->spec()->beard ? -0.098 : -0.081;
    }

    private function width(): float
    {
        return $this->shop->spec()->beard ? 0.92 : 1.0;
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

    /** @return list<Vec> */
    private function mouthInside(MouthForm $form, string $shape): array
    {
        $columns = [];
        for ($i = 0; $i <= 14; $i++) {
            $u = ($i / 14 * 2 - 1) * 0.99;
            $columns[] = [$this->width() * $form->x($u), $form->rows($u)];
        }
        $out = [];
        for ($j = 0; $j <= 5; $j++) {
            foreach ($columns as [$x, $rows]) {
                $p = $this->onFace($x, $this->line() + $rows[$j], 0.0022);
                // Teeth hang from the skull, and the dark begins at their edge; the tongue lies in the jaw.
                $out[] = V3::add($j < 3 ? $p : $this->dropped($p, $shape), [0.0, 0.0, 0.5 * $form->forward - $form->inside]);
            }
        }

        return $out;
    }

    private function lip(string $name, bool $upper): void
    {
        $rest = $this->lipRoll(new MouthForm, '', $upper);
        $morphs = self::morphs(fn (MouthForm $form, string $shape): array => $this->lipRoll($form, $shape, $upper)->points);
        $colour = V3::mix($this->shop->colour('skin'), $this->shop->colour('lip'), $this->shop->spec()->beard ? 0.5 : 0.6);
        $this->shop->crisp($name, 'skin', $rest, $colour, 'head', $morphs, true);
    }

    private function lipRoll(MouthForm $form, string $shape, bool $upper): Surface
    {
        $beard = $this->shop->spec()->beard;
        $r = $upper ? ($beard ? 0.0030 : 0.0040) * $form->rollUp : ($beard ? 0.0056 : 0.0052) * $form->rollLow;
        $path = [];
        for ($i = 0; $i <= 10; $i++) {
            $u = $i / 5 - 1;
            $y = $this->line() + $form->y($u, $upper) + ($upper ? 0.0022 : -0.0026) * (1 - $u * $u);
            $p = $this->onFace($this->width() * $form->x($u) * 1.02, $y, 0.0012);
            $out = $form->forward * (1 - 0.5 * $u * $u) - ($upper ? 0.0 : $form->tuck * (1 - $u * $u));
            $path[] = V3::add($upper ? $p : $this->dropped($p, $shape), [0.0, 0.0, $out]);
        }
        $thick = static fn (float $t): float => $r * (0.30 + 0.85 * sin(M_PI * $t));

        return Loft::sweep($path, static fn (): array => [0.0, 0.0, 1.0], $thick, $thick, 6);
    }
}
