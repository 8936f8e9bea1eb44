<?php

declare(strict_types=1);

namespace CrispReel\Core\Kit\Figure;

use CrispReel\Core\Geometry\Loft;
use CrispReel\Core\Geometry\Sdf\Field;
use CrispReel\Core\Geometry\Sdf\Solid;
use CrispReel\Core\Geometry\Surface;
use CrispReel\Core\Math\Ease;
use CrispReel\Core\Math\V3;

/** Head, hair, beard, hat and glasses. Built at life size; the whole head is enlarged afterwards. */
final class HeadMaker
{
    private Field $head;

    /** @var Field head and beard: what a mouth is drawn on */
    private Field $face;

    public function __construct(private readonly Workshop $shop)
    {
    }

    public function make(): void
    {
        $this->skull();
        (new HairMaker($this->shop))->make();
        $this->face = $this->head;
        if ($this->shop->spec()->beard) {
            $this->beard();
        }
        (new FeatureMaker($this->shop, $this->head, $this->face))->make();
        if ($this->shop->spec()->hat === 'cap') {
            $this->cap();
        }
        if ($this->shop->spec()->glasses) {
            $this->glasses();
        }
    }

    private function skull(): void
    {
        $s = $this->shop->spec();
        $c = $this->shop->body->onFace(...);
        $mix = static fn (float $a, float $b, float $t): float => $a + ($b - $a) * $t;
        $j = $s->jaw;
        $n = $s->nose;
        $blush = $this->shop->colour('blush');
        $nose = $this->shop->colour('nose');
        $eye = V3::sub($this->shop->body->eye(), $this->shop->body->face);
        $solids = [
            Solid::ellipsoid($c(0.0, $mix(0.035, 0.030, $j), -0.021), [$mix(0.122, 0.126, $j), 0.119, 0.132]),
            Solid::cone(
                $c(0.0, -0.017, 0.011),
                $c(0.0, -0.0855, $mix(0.042, 0.032, $j)),
                $mix(0.104, 0.112, $j),
                $mix(0.073, 0.094, $j),
                0.05,
            ),
            ...Solid::both([Solid::ellipsoid(
                $c($mix(0.060, 0.066, $j), $mix(-0.048, -0.030, $j), $mix(0.066, 0.072, $j)),
                [0.045, 0.039, 0.041],
                0.034,
            )->coloured($blush)]),
            ...($j < 0.6 ? [
                Solid::ellipsoid($c(0.0, -0.128, 0.076), [0.036, 0.026, 0.028]),
                Solid::ellipsoid($c(0.0, -0.082, 0.098), [0.046, 0.032, 0.024], 0.035),
            ] : []),
            ...Solid::both([Solid::cone($c(0.015, 0.0445, 0.105), $c(0.0765, 0.038, 0.081), 0.0195, 0.015)]),
            ...Solid::both([Solid::ellipsoid(
                $c($eye[0] + 0.001, $eye[1] + 0.002, $eye[2] + 0.037),
                [0.0355, 0.0305, 0.026],
                0.021,
            )->carved()]),
            Solid::cone(
                $c(0.0, 0.013, 0.111),
                $c(0.0, $mix(-0.034, -0.028, $n), 0.150),
                $mix(0.014, 0.018, $n),
                $mix(0.0215, 0.032, $n),
                0.023,
            )->coloured($nose),
            ...Solid::both([Solid::ellipsoid(
                $c($mix(0.019, 0.028, $n), -0.0355, 0.132),
                [$mix(0.013, 0.017, $n), $mix(0.011, 0.015, $n), 0.0155],
                0.013,
            )->coloured($nose)]),
            ...Solid::both([Solid::ellipsoid(
                $c($mix(0.128, 0.134, $j), -0.010, -0.012),
                [0.0165, 0.042, 0.0285],
                0.014,
            )->turned(0.0, -0.35, -0.12)->coloured($blush)]),
            ...Solid::both([Solid::ellipsoid($c($mix(0.146, 0.153, $j), -0.008, -0.002), [0.012, 0.025, 0.0145], 0.010)->carved()]),
            Solid::cone(
                [0.0, 1.27, $s->body(-0.022, -0.012)],
                $c(0.0, -0.06, $s->body(-0.034, -0.015)),
                $s->body(0.042, 0.072),
                $s->body(0.046, 0.078),
                0.025,
            ),
            ...($s->hat !== 'none' ? [Solid::cut([0.0, 1.0, 0.0], $this->shop->body->face[1] + 0.118, 0.02)] : []),
        ];
        $this->head = new Field($solids, $c(-0.175, -0.25, -0.17), $c(0.175, 0.17, 0.20));
        $this->shop->soft('head', 'skin', $this->head, 0.019, 'skin', $this->neckWeights(...), 0, Face::OF_SKIN, onHead: true);
    }

    /**
     * The chin must not follow the neck: the border slopes forward and down.
     *
     * @param  array{float, float, float}  $p
     * @return array<string, float>
     */
    private function neckWeights(array $p): array
    {
        $b = $this->shop->body;
        $head = Ease::between($b->neckY - 0.02, $b->headY - 0.005, $p[1] + 0.35 * $p[2]);
        $neck = Ease::between($b->neckY - 0.05, $b->neckY, $p[1]);

        return $head > 0.999 ? ['head' => 1.0] : [
            'head' => $head, 'neck' => (1 - $head) * $neck + 0.001, 'upperChest' => (1 - $head) * (1 - $neck) + 0.001,
        ];
    }

    private function beard(): void
    {
        $c = $this->shop->body->onFace(...);
        $curl = static fn (float $amount): \Closure => static fn (float $x, float $y): float => $amount
            * (sin($x * 95 + sin($y * 40) * 1.2) * 0.6 + sin($y * 70 + $x * 30) * 0.4);
        $solids = [
            ...Solid::both([Solid::cone($c(0.118, -0.03, 0.012), $c(0.098, -0.10, 0.050), 0.022, 0.036)->rippled($curl(0.003))]),
            ...Solid::both([Solid::cone($c(0.098, -0.10, 0.050), $c(0.03, -0.145, 0.098), 0.036, 0.042, 0.04)->rippled($curl(0.003))]),
            Solid::ellipsoid($c(0.0, -0.150, 0.088), [0.072, 0.056, 0.046], 0.04)->rippled($curl(0.004)),
            Solid::ellipsoid($c(0.0, -0.088, 0.098), [0.05, 0.03, 0.032]),
        ];
        $beard = new Field($solids, $c(-0.18, -0.24, -0.04), $c(0.18, 0.03, 0.18));
        $rigid = static fn (): array => ['head' => 1.0];
        $this->shop->soft('beard', 'hair', $beard, 0.0235, 'hair', $rigid, 0, Face::OF_SKIN, onHead: true);
        $solids[0] = $solids[0]->blended(0.004);
        $this->face = new Field([...$this->head->solids, ...$solids], $this->head->low, $this->head->high);
        $this->moustache();
    }

    private function moustache(): void
    {
        $c = $this->shop->body->onFace(...);
        $field = new Field(Solid::both([
            Solid::cone($c(0.012, -0.061, 0.150), $c(0.066, -0.086, 0.122), 0.0185, 0.011, 0.016),
            Solid::cone($c(0.066, -0.086, 0.122), $c(0.086, -0.080, 0.106), 0.011, 0.009, 0.014),
        ]), $c(-0.12, -0.13, 0.06), $c(0.12, -0.02, 0.19));
        $part = $this->shop->soft('moustache', 'hair', $field, 0.0145, 'hair', static fn (): array => ['head' => 1.0], 0, [], false, true);
        $morphs = [];
        $face = $this->shop->body->face;
        // Hair over the lip goes with it, the less the further from its middle.
        foreach (Face::mouths() as $shape => [$in, $to]) {
            $morphs[$shape] = array_map(static function (array $p) use ($face, $in, $to): array {
                $u = max(-1.0, min(1.0, ($p[0] - $face[0]) / 0.034));

                return [
                    0.5 * ($to->x($u) - $in->x($u)), 0.6 * ($to->y($u, true) - $in->y($u, true)), 0.6 * ($to->forward - $in->forward),
                ];
            }, $part->surface->points);
        }
        $morphs['seal'] = array_map(static fn (array $v): array => V3::mul($v, -1.0), $morphs['jawOpen']);
        $colours = array_map(static fn (array $k): array => V3::mul($k, 1.35), $part->colours);
        $this->shop->parts['moustache'] = new Part('moustache', 'hair', $part->surface, $colours, $part->weights, $morphs, true);
    }

    private function cap(): void
    {
        $c = $this->shop->body->onFace(0.0, 0.116, -0.024);
        $this->shop->fields[] = new Field([
            Solid::cone(V3::add($c, [0.0, -0.03, 0.0]), V3::add($c, [0.0, 0.01, 0.0]), 0.138, 0.138, 0.03, [1.0, 0.3, 1.02]),
            Solid::ellipsoid(V3::add($c, [-0.006, 0.068, -0.006]), [0.172, 0.056, 0.168], 0.05)->turned(-0.14, 0.0, 0.06),
        ], V3::add($c, [-0.2, -0.08, -0.2]), V3::add($c, [0.2, 0.15, 0.2]));
        $profile = [
            [0.116, -0.045], [0.137, -0.028], [0.139, 0.018], [0.150, 0.040], [0.168, 0.058], [0.178, 0.080], [0.172, 0.102],
            [0.150, 0.116], [0.105, 0.121], [0.05, 0.119], [0.0, 0.118],
        ];
        $around = 26;
        $points = [];
        foreach ($profile as $k => [$r, $y]) {
            $slope = min(1.0, max(0, $k - 1) / 3);
            for ($i = 0; $i < $around; $i++) {
                $a = $i / $around * 2 * M_PI;
                $fold = $k > 4 && $k < 8 ? 0.0035 * sin($a * 7 + $k) : 0.0;
                $points[] = V3::add($c, [
                    sin($a) * $r, $y + $slope * (0.018 * cos($a) + 0.008 * sin($a)) + $fold, cos($a) * $r * 1.02 - 0.006 * $slope,
                ]);
            }
        }
        $index = [];
        for ($k = 0; $k < count($profile) - 1; $k++) {
            for ($i = 0; $i < $around; $i++) {
                $a = $k * $around + $i;
                $b = $k * $around + ($i + 1) % $around;
                array_push($index, $a, $b, $b + $around);
                if ($k < count($profile) - 2) {
                    array_push($index, $a, $b + $around, $a + $around);
                }
            }
        }
        $out = array_map(static fn (array $p): array => V3::sub($p, $c), $points);
        $surface = Surface::facing($points, $index, $out);
        $normals = $surface->normals;
        for ($i = count($normals) - $around; $i < count($normals); $i++) {
            $normals[$i] = [0.0, 1.0, 0.0];
        }
        $this->shop->crisp(
            'cap', 'cloth', new Surface($surface->points, $normals, $surface->index), $this->shop->colour('hat'), 'head', [], true,
        );
        $this->capTrim($c);
    }

    /** @param  array{float, float, float}  $c */
    private function capTrim(array $c): void
    {
        $r = 0.1415;
        $band = [];
        for ($i = 0; $i < 24; $i++) {
            $a = $i / 24 * 2 * M_PI;
            $band[] = V3::add($c, [sin($a) * $r, 0.004, cos($a) * $r * 1.02]);
        }
        $ring = Loft::sweep($band, static fn (int $i): array => V3::unit(V3::sub($band[$i], $c)), 0.024, 0.0065, 6, true, 0.6);
        $this->shop->crisp('band', 'leather', $ring, $this->shop->colour('band'), 'head', [], true);
        foreach ([1.0, -1.0] as $up) {
            $peak = Loft::patch(static function (float $u, float $v) use ($c, $r, $up): array {
                $a = ($u - 0.5) * 2 * 1.12;
                $out = $r - 0.004 + 0.078 * max(0.0, cos($a * 0.98)) ** 0.8 * $v;
                $drop = -0.012 - 0.020 * $v * $v - 0.006 * $v - 0.022 * (1 - cos($a));

                return [V3::add($c, [sin($a) * $out, $drop, cos($a) * $out * 1.02]), [0.0, $up, 0.0]];
            }, 14, 5, 0.004, 0.0005, 0.05);
            $this->shop->crisp('peak'.($up > 0 ? 'Top' : 'Under'), 'leather', $peak, $this->shop->colour('peak'), 'head', [], true);
        }
        if ($this->shop->spec()->paperBoat) {
            $this->paperBoat(V3::add($c, [0.092, 0.014, 0.122]));
        }
    }

    /**
     * A boat folded from a ticket, stuck in the cap band: no other ferry pilot wears one.
     *
     * @param  array{float, float, float}  $at
     */
    private function paperBoat(array $at): void
    {
        $l = 0.046;
        $shape = [
            [-$l, 0.018, 0.0], [$l, 0.018, 0.0], [0.6 * $l, -0.012, 0.008], [-0.6 * $l, -0.012, 0.008],
            [0.0, 0.052, 0.004], [-0.44 * $l, 0.010, 0.010], [0.44 * $l, 0.010, 0.010],
            [0.6 * $l, -0.012, -0.004], [-0.6 * $l, -0.012, -0.004],
        ];
        $turn = -0.64;
        $points = array_map(static fn (array $p): array => V3::add($at, [
            $p[0] * cos($turn) + $p[2] * -sin($turn), $p[1] + $p[0] * 0.08, $p[0] * sin($turn) + $p[2] * cos($turn),
        ]), $shape);
        $faces = [[0, 3, 2], [0, 2, 1], [5, 6, 4], [0, 7, 8], [0, 1, 7], [4, 6, 5], [1, 2, 7], [0, 8, 3]];
        $flatPoints = [];
        $normals = [];
        $index = [];
        $away = V3::unit([sin(-$turn), 0.1, cos(-$turn)]);
        foreach ($faces as $n => $f) {
            [$a, $b, $d] = [$points[$f[0]], $points[$f[1]], $points[$f[2]]];
            $normal = V3::unit(V3::cross(V3::sub($b, $a), V3::sub($d, $a)));
            if (($n < 3) === (V3::dot($normal, $away) < 0)) {
                [$b, $d] = [$d, $b];
                $normal = V3::mul($normal, -1.0);
            }
            foreach ([$a, $b, $d] as $p) {
                $index[] = count($flatPoints);
                $flatPoints[] = $p;
                $normals[] = $normal;
            }
        }
        $this->shop->crisp(
            'paperBoat', 'cloth', new Surface($flatPoints, $normals, $index), $this->shop->colour('paper'), 'head', [], true,
        );
    }

    private function glasses(): void
    {
        $body = $this->shop->body;
        $e = $body->eye();
        $r = 0.043;
        $metal = $this->shop->colour('metal');
        foreach ([1.0, -1.0] as $s) {
            $side = $s > 0 ? 'L' : 'R';
            $c = [$s * ($e[0] + 0.004), $e[1] - 0.002, $e[2] + 0.040];
            $yaw = $s * 0.16;
            $rim = [];
            for ($i = 0; $i < 20; $i++) {
                $a = $i / 20 * 2 * M_PI;
                $rim[] = [$c[0] + cos($a) * $r * cos($yaw), $c[1] + sin($a) * $r, $c[2] - cos($a) * $r * sin($yaw)];
            }
            $ring = Loft::sweep($rim, static fn (int $i): array => V3::unit(V3::sub($rim[$i], $c)), 0.0042, 0.0042, 5, true);
            $this->shop->crisp('rim'.$side, 'metal', $ring, $metal, 'head', [], true);
            $hinge = [$c[0] + $s * $r * cos($yaw), $c[1] + 0.006, $c[2] - $r * sin(abs($yaw))];
            $arm = [
                $hinge, V3::add($hinge, [$s * 0.006, 0.002, -0.03]), [$s * 0.139, $e[1] + 0.014, $body->face[2] + 0.02],
                [$s * 0.139, $e[1] + 0.010, $body->face[2] - 0.03],
            ];
            $this->shop->crisp(
                'temple'.$side, 'metal', Loft::sweep($arm, static fn (): array => [0.0, 1.0, 0.0], 0.0030, 0.0034, 6), $metal, 'head', [],
                true,
            );
        }
        $x = $e[0] + 0.004 - $r;
        $bridge = array_map(
            static fn (float $t): array => [
                $t * ($x + 0.002), $e[1] + 0.004 + 0.007 * (1 - $t * $t), $e[2] + 0.046 + 0.006 * (1 - $t * $t),
            ],
            [-1.0, -0.5, 0.0, 0.5, 1.0],
        );
        $this->shop->crisp(
            'bridge', 'metal', Loft::sweep($bridge, static fn (): array => [0.0, 0.0, 1.0], 0.0034, 0.0034, 6), $metal, 'head', [], true,
        );
    }
}
