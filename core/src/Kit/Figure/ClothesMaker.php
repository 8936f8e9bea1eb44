<?php

declare(strict_types=1);

namespace CrispReel\Core\Kit\Figure;

use CrispReel\Core\Geometry\Loft;
use CrispReel\Core\Geometry\Sdf\Field;
use CrispReel\Core\Geometry\Sdf\Solid;
use CrispReel\Core\Geometry\Surface;
use CrispReel\Core\Math\Ease;
use CrispReel\Core\Math\V3;

/**
 * Hands, coat or jacket with its details, neck wear and legs.
 *
 * @phpstan-type Vec array{float, float, float}
 */
final class ClothesMaker
{
    private const TORSO = ['hips', 'spine', 'chest', 'upperChest'];

    private const ARMS = ['upperArmL', 'upperArmR', 'lowerArmL', 'lowerArmR', 'shoulderL', 'shoulderR'];

    private Field $torso;

    private bool $long;

    public function __construct(private readonly Workshop $shop)
    {
    }

    public function make(): void
    {
        $this->long = in_array($this->shop->spec()->top, ['coat', 'dress'], true);
        $this->hands();
        $this->top();
        $this->cuffs();
        match ($this->shop->spec()->top) {
            'coat' => $this->coatDetails(),
            'dress' => $this->dressDetails(),
            'jumper' => $this->jumperDetails(),
            default => $this->jacketDetails(),
        };
        $this->shop->spec()->neck === 'scarf' ? $this->scarf() : $this->rollNeck();
        if ($this->shop->spec()->bag) {
            $this->bag();
        }
        $this->legs();
        (new BootMaker($this->shop))->make();
    }

    private function hands(): void
    {
        $b = $this->shop->body;
        $s = $b->handSize;
        $at = $b->onHand(...);
        $tip = V3::mix($this->shop->colour('skin'), $this->shop->colour('blush'), 0.55);
        $solids = [
            Solid::cone($at(-0.03, 0, 0), $at(0.02, 0, 0), 0.021 * $s, 0.026 * $s, 0.02),
            Solid::cone($at(0.03, 0.026, 0.004), $at(0.078, 0.030, 0.002), 0.0175 * $s, 0.0165 * $s, 0.015),
            Solid::cone($at(0.03, 0.002, 0.003), $at(0.082, 0.003, 0.001), 0.0185 * $s, 0.0165 * $s, 0.02),
            Solid::cone($at(0.03, -0.022, 0.004), $at(0.074, -0.027, 0.002), 0.0175 * $s, 0.0155 * $s, 0.02),
            Solid::cone($at(0.018, 0.018, 0.008), $at(0.038, 0.034, 0.012), 0.020 * $s, 0.018 * $s, 0.015),
        ];
        $points = [$at(-0.05, 0.03, 0), $at(-0.05, -0.03, 0)];
        $names = ['handL'];
        foreach ($b->fingers as $i => [$p0, $p1, $p2]) {
            $r = ($i > 0 ? 0.0132 : 0.0155) * $s;
            $solids[] = Solid::cone($p0, $p1, $r, $r * 0.95, $i > 0 ? 0.006 : 0.012);
            $solids[] = Solid::cone($p1, $p2, $r * 0.95, $r * 0.84, 0.004)->coloured($tip);
            array_push($points, $p0, $p1, $p2);
            array_push($names, Body::FINGERS[$i].'1L', Body::FINGERS[$i].'2L');
        }
        $low = array_map(static fn (int $k): float => min(array_column($points, $k)) - 0.03, [0, 1, 2]);
        $high = array_map(static fn (int $k): float => max(array_column($points, $k)) + 0.03, [0, 1, 2]);
        $field = new Field($solids, [$low[0], $low[1], $low[2]], [$high[0], $high[1], $high[2]]);
        $skin = $this->shop->skin;
        $this->shop->soft(
            'handL', 'skin', $field, 0.0141 * $s, 'skin', static fn (array $p): array => $skin->at($p, $names, 0.006), 1, [], false,
        );
        $this->shop->mirror('handL', 'handR');
    }

    private function top(): void
    {
        $s = $this->shop->spec();
        $b = $this->shop->body;
        $mix = $s->body(...);
        $flat = [$mix(1.06, 1.07), 1.0, 0.84];
        $body = [
            Solid::cone(
                [0.0, $mix(1.20, 1.17), -0.010],
                [0.0, $mix(1.0, 0.98), $mix(0.0, 0.012)],
                $mix(0.122, 0.180),
                $mix(0.128, 0.198),
                0.03,
                $flat,
            ),
            Solid::cone(
                [-$mix(0.10, 0.145), 1.262, -0.013],
                [$mix(0.10, 0.145), 1.262, -0.013],
                $mix(0.052, 0.066),
                $mix(0.052, 0.066),
                0.07,
            ),
            Solid::ellipsoid([0.0, $mix(1.135, 1.0), $mix(0.052, 0.092)], [$mix(0.10, 0.14), $mix(0.06, 0.12), $mix(0.055, 0.085)], 0.055),
        ];
        $hem = $this->long ? 0.405 : 0.650;
        $body[] = $this->long
            ? Solid::cone([0.0, 0.99, 0.0], [0.0, 0.405, 0.0], $mix(0.128, 0.192), $mix(0.238, 0.275), 0.06, [1.0, 1.0, 0.86])
            : Solid::cone([0.0, 0.96, 0.010], [0.0, 0.66, 0.004], $mix(0.135, 0.198), $mix(0.165, 0.228), 0.05, [1.02, 1.0, 0.86]);
        $d = V3::unit(V3::sub($b->hand, $b->lowerArm));
        $sleeves = Solid::both([
            Solid::cone($b->upperArm, $b->lowerArm, $mix(0.060, 0.078), $mix(0.053, 0.069), 0.05),
            Solid::cone($b->lowerArm, V3::addScaled($b->hand, $d, -0.060), $mix(0.053, 0.069), $mix(0.050, 0.061), 0.012),
        ]);
        $lining = $this->shop->colour('lining');
        $solids = [...$body, ...$sleeves, Solid::cut([0.0, -1.0, 0.0], -$hem, 0.047)->coloured($lining)];
        if ($this->shop->spec()->top === 'coat') {
            $solids[] = Solid::cone([0.0, 0.64, 0.20], [0.0, 0.36, 0.27], 0.004, 0.055, 0.02)->carved()->coloured($lining);
        }
        $low = [-$mix(0.50, 0.58), $hem - 0.045, -0.30];
        $high = [$mix(0.50, 0.58), 1.37, 0.32];
        $this->torso = new Field($body, $low, $high);
        $this->shop->soft(
            'top', $this->shop->spec()->top === 'jumper' ? 'knit' : 'cloth', new Field($solids, $low, $high), $mix(0.0375, 0.0405), 'top',
            $this->long ? $this->coatWeights(...) : $this->jacketWeights(...), 3,
        );
    }

    /**
     * The skirt hangs between the thighs: less at the back, so that it clears a lifted leg.
     *
     * @param  Vec  $p
     * @return array<string, float>
     */
    private function coatWeights(array $p): array
    {
        $w = $this->shop->skin->at($p, [...self::TORSO, ...self::ARMS], 0.021);
        $legs = Ease::between(0.90, 0.60, $p[1]) * (0.92 - 0.22 * Ease::between(0.0, -0.13, $p[2]));
        if ($legs <= 0.0 || abs($p[0]) >= 0.27 + 0.06 * $this->shop->spec()->build) {
            return $w;
        }
        $left = Ease::between(-0.11, 0.11, $p[0]);
        $skirt = ['hips' => 1 - $legs, 'upperLegL' => $legs * $left, 'upperLegR' => $legs * (1 - $left)];
        if ($p[1] < 0.82) {
            return $skirt;
        }
        $t = Ease::between(0.92, 0.82, $p[1]);
        $out = array_map(static fn (float $v): float => $v * $t, $skirt);
        foreach (SkinWeights::normalised($w) as $n => $v) {
            $out[$n] = ($out[$n] ?? 0.0) + $v * (1 - $t);
        }

        return $out;
    }

    /**
     * @param  Vec  $p
     * @return array<string, float>
     */
    private function jacketWeights(array $p): array
    {
        $w = SkinWeights::normalised($this->shop->skin->at($p, [...self::TORSO, ...self::ARMS], 0.022));
        $legs = Ease::between(0.90, 0.66, $p[1]) * 0.72;
        if ($legs > 0.0 && abs($p[0]) < 0.32) {
            $left = Ease::between(-0.13, 0.13, $p[0]);
            $w = array_map(static fn (float $v): float => $v * (1 - $legs), $w);
            $w['upperLegL'] = ($w['upperLegL'] ?? 0.0) + $legs * $left;
            $w['upperLegR'] = ($w['upperLegR'] ?? 0.0) + $legs * (1 - $left);
        }

        return $w;
    }

    private function cuffs(): void
    {
        $b = $this->shop->body;
        $r = $this->shop->spec()->body(0.062, 0.072);
        $d = V3::unit(V3::sub($b->hand, $b->lowerArm));
        $u = V3::unit(V3::cross($d, [0.0, 0.0, 1.0]));
        $v = V3::cross($d, $u);
        $centre = V3::addScaled($b->hand, $d, -0.026);
        $ring = Workshop::ring($centre, $u, $v, $r, 14);
        $cuff = Loft::sweep($ring, static fn (int $i): array => V3::unit(V3::sub($ring[$i], $centre)), 0.036, 0.0095, 8, true, 0.6);
        $this->shop->crisp('cuffL', 'cloth', $cuff, $this->shop->colour('cuff'), 'lowerArmL');
        $this->shop->mirror('cuffL', 'cuffR');
        $mouth = V3::addScaled($b->hand, $d, -0.012);
        $disc = [$mouth, ...Workshop::ring($mouth, $u, $v, $r, 14)];
        $index = [];
        for ($i = 0; $i < 14; $i++) {
            array_push($index, 0, 1 + $i, 1 + ($i + 1) % 14);
        }
        $this->shop->crisp(
            'cuffInsideL',
            'cloth',
            Surface::facing($disc, $index, array_fill(0, 15, $d)),
            $this->shop->colour('lining'),
            'lowerArmL',
        );
        $this->shop->mirror('cuffInsideL', 'cuffInsideR');
    }

    /** @return array{Vec, Vec} point and normal on the torso */
    private function onTorso(float $x, float $y, float $out = 0.0): array
    {
        $p = $this->torso->project($x, $y);
        $n = $this->torso->normal($p, 0.006);

        return [V3::addScaled($p, $n, $out), $n];
    }

    /**
     * A four-cornered piece of cloth sewn on the front; corners run bottom-up or top-down as given.
     *
     * @param  list<array{float, float}>  $q
     */
    private function sewn(string $name, string $paint, array $q, int $nu, int $nv, float $thick, string $colour, float $gain): void
    {
        $patch = Loft::patch(function (float $u, float $v) use ($q): array {
            $a = V3::mix([...$q[0], 0.0], [...$q[1], 0.0], $u);
            $b = V3::mix([...$q[3], 0.0], [...$q[2], 0.0], $u);
            $x = V3::mix($a, $b, $v);

            return $this->onTorso($x[0], $x[1]);
        }, $nu, $nv, $thick, 0.004, 0.1);
        $this->shop->crisp($name, $paint, $patch, $this->shop->colour($colour, $gain), $this->shop->attached('top', $patch->points));
    }

    private function coatDetails(): void
    {
        $k = 1 + 0.4 * $this->shop->spec()->build;
        $this->sewn('placket', 'cloth', [[0.002, 1.23], [0.052, 1.23], [0.052, 0.66], [0.002, 0.66]], 4, 14, 0.010, 'top', 0.86);
        foreach ([1.17, 1.08, 0.99, 0.90, 0.80] as $i => $y) {
            $this->shop->button('button'.$i, 'top', $this->torso, $this->onTorso(0.030, $y, 0.008)[0], 0.0165, 'button');
        }
        foreach (['L' => 1.0, 'R' => -1.0] as $side => $s) {
            $this->sewn(
                'pocket'.$side, 'cloth',
                [[$s * 0.078 * $k, 0.845], [$s * 0.142 * $k, 0.838], [$s * 0.150 * $k, 0.715], [$s * 0.082 * $k, 0.72]], 5, 6, 0.011,
                'top', 0.82,
            );
            $this->sewn(
                'lapel'.$side, 'cloth', [[$s * 0.045, 1.285], [$s * 0.105 * $k, 1.262], [$s * 0.098 * $k, 1.175], [$s * 0.018, 1.125]], 5,
                6, 0.013, 'cuff', 1.0,
            );
        }
    }

    /** A belt, and a row of small buttons down to it. */
    private function dressDetails(): void
    {
        $k = 1 + 0.4 * $this->shop->spec()->build;
        $this->sewn(
            'belt', 'leather', [[-0.118 * $k, 0.985], [0.118 * $k, 0.985], [0.118 * $k, 0.945], [-0.118 * $k, 0.945]], 10, 3, 0.010,
            'strap', 1.0,
        );
        foreach ([1.21, 1.15, 1.09, 1.03] as $i => $y) {
            $this->shop->button('button'.$i, 'top', $this->torso, $this->onTorso(0.0, $y, 0.002)[0], 0.0135, 'button');
        }
        foreach (['L' => 1.0, 'R' => -1.0] as $side => $s) {
            $this->sewn(
                'collar'.$side, 'cloth', [[$s * 0.006, 1.285], [$s * 0.10 * $k, 1.278], [$s * 0.092 * $k, 1.225], [$s * 0.012, 1.235]], 5,
                4, 0.012, 'cuff', 1.0,
            );
        }
    }

    /** Two bands across the chest and a ribbed hem. */
    private function jumperDetails(): void
    {
        $k = 0.78 + 0.30 * $this->shop->spec()->build;
        foreach ([1.135, 1.065] as $i => $y) {
            $this->sewn(
                'band'.$i, 'knit',
                [[-0.150 * $k, $y + 0.022], [0.150 * $k, $y + 0.022], [0.150 * $k, $y - 0.018], [-0.150 * $k, $y - 0.018]], 12, 3, 0.005,
                'cuff', 1.0,
            );
        }
        $this->sewn(
            'hem', 'knit', [[-0.155 * $k, 0.715], [0.155 * $k, 0.715], [0.155 * $k, 0.668], [-0.155 * $k, 0.668]], 12, 3, 0.010, 'cuff',
            0.9,
        );
    }

    private function jacketDetails(): void
    {
        $k = 0.72 + 0.28 * $this->shop->spec()->build;
        $this->sewn('vest', 'knit', [[-0.060 * $k, 1.30], [0.060 * $k, 1.30], [0.012, 1.15], [-0.012, 1.15]], 6, 6, 0.006, 'neck', 1.0);
        $this->sewn('front', 'cloth', [[-0.10 * $k, 1.17], [0.012, 1.15], [0.016, 0.672], [-0.10 * $k, 0.672]], 6, 14, 0.009, 'top', 0.92);
        foreach ([1.10, 0.98, 0.86] as $i => $y) {
            foreach (['L' => 1.0, 'R' => -1.0] as $side => $s) {
                $this->shop->button(
                    'button'.$i.$side,
                    'top',
                    $this->torso,
                    $this->onTorso(($s * 0.072 - 0.008) * $k, $y, $s < 0 ? 0.006 : -0.001)[0],
                    0.0195,
                    'button',
                );
            }
        }
        foreach (['L' => 1.0, 'R' => -1.0] as $side => $s) {
            $this->sewn(
                'lapel'.$side, 'cloth',
                [[$s * 0.050 * $k, 1.305], [$s * 0.135 * $k, 1.270], [$s * 0.150 * $k, 1.205], [$s * 0.006, 1.135]], 5, 7, 0.016, 'top',
                0.74,
            );
            $this->sewn(
                'pocket'.$side, 'cloth',
                [[$s * 0.105 * $k, 0.905], [$s * 0.178 * $k, 0.885], [$s * 0.180 * $k, 0.845], [$s * 0.106 * $k, 0.865]], 5, 4, 0.012,
                'top', 0.72,
            );
        }
    }

    private function scarf(): void
    {
        $k = 1 + 0.35 * $this->shop->spec()->build;
        $knit = static fn (float $way): \Closure => static fn (float $x, float $y, float $z): float => 0.003
            * sin(atan2($x, $z) * 14 + $way * $y * 60);
        $field = new Field([
            Solid::ring([0.0, 1.318, 0.004], 0.066 * $k, 0.034)->turned(0.20, 0.0, 0.0)->rippled($knit(1.0)),
            Solid::ring([0.0, 1.282, 0.010], 0.082 * $k, 0.032, 0.012)->turned(0.26, 0.0, 0.06)->rippled($knit(-1.0)),
            Solid::ellipsoid([0.038, 1.255, 0.108 * $k], [0.034, 0.030, 0.026], 0.01),
        ], [-0.20, 1.19, -0.18], [0.20, 1.39, 0.21]);
        $this->shop->soft('scarf', 'knit', $field, 0.026, 'neck', self::collarWeights(...), 1);
        foreach ([[0.038, 0.066, 1.02], [0.030, 0.020, 1.075]] as $i => [$x0, $x1, $y1]) {
            $path = [];
            $normals = [];
            for ($j = 0; $j < 7; $j++) {
                $t = $j / 6;
                [$path[], $normals[]] = $this->onTorso($x0 + ($x1 - $x0) * $t, 1.245 + ($y1 - 1.245) * $t, 0.020 + 0.004 * $i);
            }
            $tail = Loft::sweep(
                $path, static fn (int $n): array => $normals[$n], static fn (float $t): float => 0.021 + 0.009 * $t, 0.009, 8, false, 0.7,
            );
            $this->shop->crisp(
                'tail'.$i,
                'knit',
                $tail,
                $this->shop->colour('neck', $i > 0 ? 0.85 : 1.0),
                $this->shop->attached('top', $tail->points),
            );
        }
    }

    /**
     * @param  Vec  $p
     * @return array<string, float>
     */
    private static function collarWeights(array $p): array
    {
        $t = Ease::between(1.29, 1.375, $p[1]);

        return ['upperChest' => 1 - $t * 0.7, 'neck' => $t * 0.7 + 0.0001];
    }

    private function rollNeck(): void
    {
        $k = $this->shop->spec()->body(0.80, 1.0);
        $field = new Field([
            Solid::ring([0.0, 1.335, 0.002], 0.070 * $k, 0.034 * $k)->turned(0.14, 0.0, 0.0)->rippled(
                static fn (float $x, float $y, float $z): float => 0.0025 * sin(atan2($x, $z) * 22),
            ),
            Solid::cone([0.0, 1.25, 0.0], [0.0, 1.33, -0.005], 0.09 * $k, 0.08 * $k, 0.02),
        ], [-0.15, 1.20, -0.14], [0.15, 1.41, 0.15]);
        $this->shop->soft('rollNeck', 'knit', $field, 0.030, 'neck', self::collarWeights(...), 1);
        $path = [];
        for ($i = 0; $i < 18; $i++) {
            $a = 0.62 + (2 * M_PI - 1.24) * $i / 17;
            $back = 0.5 - 0.5 * cos($a);
            $path[] = [sin($a) * (0.128 + 0.012 * $back) * $k, 1.298 + 0.034 * $back, cos($a) * 0.112 * $k - 0.012];
        }
        $collar = Loft::sweep(
            $path, static fn (int $i): array => V3::unit([$path[$i][0], 0.045, $path[$i][2] + 0.01]),
            static fn (float $t): float => 0.050 - 0.006 * cos($t * 2 * M_PI), 0.013, 8, false, 0.7,
        );
        $weights = array_fill(0, count($collar->points), ['upperChest' => 0.8, 'neck' => 0.2]);
        $this->shop->crisp('collar', 'cloth', $collar, $this->shop->colour('top', 0.74), $weights);
    }

    private function bag(): void
    {
        $this->strap();
        $x = $this->shop->spec()->body(0.0, 0.06);
        $weights = static fn (): array => ['hips' => 0.72, 'upperLegL' => 0.28];
        $bag = new Field(
            [Solid::box([0.250 + $x, 0.735, -0.03], [0.052, 0.090, 0.115], 0.03)->turned(0.0, 0.10, 0.10)],
            [0.15 + $x, 0.60, -0.21],
            [0.38 + $x, 0.87, 0.16],
        );
        $flap = new Field(
            [Solid::box([0.262 + $x, 0.775, -0.03], [0.048, 0.058, 0.122], 0.026)->turned(0.0, 0.10, 0.10)],
            [0.16 + $x, 0.69, -0.22],
            [0.38 + $x, 0.88, 0.17],
        );
        $this->shop->soft('bag', 'leather', $bag, 0.03, 'bag', $weights);
        $part = $this->shop->soft('flap', 'leather', $flap, 0.03, 'bag', $weights, 0, [], false);
        $part->colours = array_map(static fn (array $c): array => V3::mul($c, 0.72), $part->colours);
        $round = new Field([Solid::ellipsoid([0.218 + $x, 0.733, -0.03], [0.1, 0.1, 0.1])], [0.0, 0.0, 0.0], [1.0, 1.0, 1.0]);
        $this->shop->button('clasp', 'bag', $round, [0.318 + $x, 0.733, -0.02], 0.020, 'metal');
    }

    /** The strap follows the torso where a slanting plane cuts it. */
    private function strap(): void
    {
        $from = [-0.085, 1.30, 0.0];
        $to = [0.21, 0.80, 0.0];
        $middle = V3::mix($from, $to, 0.5);
        $along = V3::unit(V3::sub($to, $from));
        $path = [];
        $normals = [];
        for ($i = 0; $i < 28; $i++) {
            $a = $i / 28 * 2 * M_PI;
            $start = V3::add(V3::addScaled($middle, $along, cos($a) * 0.42), [0.0, 0.0, sin($a) * 0.36]);
            $aim = V3::addScaled($middle, $along, cos($a) * (cos($a) > 0 ? 0.13 : 0.20));
            $p = $this->torso->march($start, V3::unit(V3::sub($aim, $start)));
            $n = $this->torso->normal($p, 0.01);
            $normals[] = $n;
            $path[] = V3::addScaled($p, $n, 0.010);
        }
        $strap = Loft::sweep($path, static fn (int $i): array => $normals[$i], 0.0175, 0.006, 6, true, 0.7);
        $this->shop->crisp('strap', 'leather', $strap, $this->shop->colour('strap'), $this->shop->attached('top', $strap->points));
    }

    private function legs(): void
    {
        $b = $this->shop->body;
        $mix = $this->shop->spec()->body(...);
        $low = BootMaker::top($this->shop) - $mix(0.05, 0.03);
        $high = $this->long ? 0.57 : 0.78;
        $knee = V3::add($b->lowerLeg, [0.0, -0.085, 0.004]);
        $fold = V3::add($b->lowerLeg, [0.0, 0.03, 0.010]);
        $solids = [
            ...Solid::both([
                Solid::cone($b->upperLeg, $b->lowerLeg, $mix(0.074, 0.104), $mix(0.062, 0.086), 0.012),
                Solid::cone($b->lowerLeg, $b->foot, $mix(0.062, 0.086), $mix(0.050, 0.076), 0.008),
            ]),
            ...($this->shop->spec()->build > 0.5 ? Solid::both([
                Solid::ellipsoid($knee, [0.090, 0.040, 0.088]), Solid::ellipsoid($fold, [0.088, 0.035, 0.088]),
            ]) : []),
            Solid::cut([0.0, -1.0, 0.0], -$low, 0.01),
            Solid::cut([0.0, 1.0, 0.0], $high, 0.02),
        ];
        $field = new Field($solids, [-0.24, $low - 0.03, -0.13], [0.24, $high + 0.03, 0.15]);
        $skin = $this->shop->skin;
        $this->shop->soft('legs', 'cloth', $field, $mix(0.036, 0.042), 'legs', static function (array $p) use ($skin): array {
            $side = $p[0] > 0 ? 'L' : 'R';

            return $skin->at($p, ['hips', 'upperLeg'.$side, 'lowerLeg'.$side], 0.026);
        }, 2);
    }
}
