<?php

declare(strict_types=1);

namespace CrispReel\Core\Kit;

use Closure;
use CrispReel\Core\Format\Gltf\GltfWriter;
use CrispReel\Core\Geometry\Surface;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\Random;
use CrispReel\Core\Math\V3;

/**
 * A set piece or prop in the making: painted surfaces put together with a little seeded irregularity, then written as
 * GLB with the attributes our drawing reads (_BAKE: occlusion, two lamps, wear; _SURF: gloss, glow, wood; _REST).
 *
 * @phpstan-type Vec array{float, float, float}
 * @phpstan-type Quat array{float, float, float, float}
 */
final class Piece
{
    /** @var list<float> */
    public array $positions = [];

    /** @var list<float> */
    public array $normals = [];

    /** @var list<float> */
    private array $colours = [];

    /** @var list<float> */
    private array $rest = [];

    /** @var list<float> gloss, glow, wood for each point */
    public array $surface = [];

    /** @var list<float> */
    private array $wear = [];

    /** @var list<int> */
    public array $index = [];

    /** @var array<string, array{Vec, Quat}> */
    private array $mounts = [];

    /** @var list<array{name: string, pivot: Vec, points: array{int, int}, index: array{int, int}}> what turns by itself */
    private array $parts = [];

    /** @var list<array{node: string, extras: array<string, mixed>, points: array{int, int}, index: array{int, int}}> what can be away */
    private array $away = [];

    /** @var list<array{Vec, Quat}> */
    private array $frames = [[[0.0, 0.0, 0.0], Q4::IDENTITY]];

    private readonly Random $random;

    /** @var list<float>|null occlusion and two lamps for each point */
    private ?array $baked = null;

    public function __construct(public readonly string $name, int $seed)
    {
        $this->random = new Random($seed);
    }

    /**
     * Draws what follows in a moved frame.
     *
     * @param  Closure(self): mixed  $draw
     */
    public function in(float $x, float $y, float $z, Closure $draw, float $yaw = 0.0, float $pitch = 0.0, float $roll = 0.0): self
    {
        $this->frames[] = $this->placed([$x, $y, $z], Q4::pitchYawRoll($pitch, $yaw, $roll));
        $draw($this);
        array_pop($this->frames);

        return $this;
    }

    /**
     * Draws a part that turns by itself about a place: a wheel, an oar.
     *
     * @param  Closure(self): mixed  $draw
     */
    public function part(
        string $name, float $x, float $y, float $z, Closure $draw, float $yaw = 0.0, float $pitch = 0.0, float $roll = 0.0,
    ): self {
        [$points, $index] = [$this->points(), count($this->index)];
        $this->in($x, $y, $z, $draw, $yaw, $pitch, $roll);
        $this->parts[] = [
            'name' => $name, 'pivot' => $this->placed([$x, $y, $z], Q4::IDENTITY)[0], 'points' => [$points, $this->points()],
            'index' => [$index, count($this->index)],
        ];

        return $this;
    }

    /**
     * Draws a wild wall: taken away for a lens that stands behind it. It is drawn with its inner face to +z, 6 cm before its middle.
     *
     * @param  Closure(self): mixed  $draw
     * @param  Vec  $inward  to where it faces, in its own frame
     */
    public function wild(
        string $name, float $x, float $y, float $z, Closure $draw, float $yaw = 0.0, array $inward = [0.0, 0.0, 1.0],
    ): self {
        [$at, $turn] = $this->placed([$x, $y, $z], Q4::aroundY($yaw));
        $normal = Q4::rotate($turn, $inward);

        return $this->apart(
            'wild:'.$name, ['wild' => $name, 'inward' => $normal, 'offset' => V3::dot($normal, $at) + 0.06],
            fn (): self => $this->in($x, $y, $z, $draw, $yaw),
        );
    }

    /**
     * Draws what a room goes on with beyond walls that are away, so that no edge shows; nothing solid.
     *
     * @param  list<string>  $away  walls that are to be away for it
     * @param  list<string>  $standing  walls that are to stand
     * @param  Closure(self): mixed  $draw
     */
    public function beyond(array $away, array $standing, Closure $draw): self
    {
        return $this->apart('beyond:'.implode(' ', $away), ['away' => $away, 'standing' => $standing], fn (): mixed => $draw($this));
    }

    /**
     * Draws what is there from some fullness on, 0 to 1, of what lies around a place.
     *
     * @param  Closure(self): mixed  $draw
     */
    public function layer(float $from, Closure $draw): self
    {
        return $this->apart('layer:'.round($from, 3), ['layer' => $from], fn (): mixed => $draw($this));
    }

    /**
     * @param  array<string, mixed>  $extras
     * @param  Closure(): mixed  $draw
     */
    private function apart(string $node, array $extras, Closure $draw): self
    {
        [$points, $index] = [$this->points(), count($this->index)];
        $draw();
        $this->away[] = [
            'node' => $node, 'extras' => $extras, 'points' => [$points, $this->points()], 'index' => [$index, count($this->index)],
        ];

        return $this;
    }

    /**
     * @param  Vec  $at
     * @param  Quat  $turn
     * @return array{Vec, Quat}
     */
    private function placed(array $at, array $turn): array
    {
        [$p, $q] = $this->frames[count($this->frames) - 1];

        return [V3::add($p, Q4::rotate($q, $at)), Q4::mul($q, $turn)];
    }

    /**
     * @param  Vec  $at
     * @param  Quat  $turn
     */
    public function mount(string $name, array $at, array $turn = Q4::IDENTITY): self
    {
        $this->mounts[$name] = $this->placed($at, $turn);

        return $this;
    }

    /**
     * Adds a surface.
     *
     * @param  int|Closure(Vec): (int|array{float, float, float})  $paint  sRGB, or linear by local place
     * @param  Vec  $at
     * @param  Vec  $turn  pitch, yaw, roll (radians)
     * @param  int  $grain  axis along which wood runs
     * @param  float  $jitter  degrees of irregularity
     * @param  float  $wave  metres of unevenness
     * @param  float  $vary  spread of the colour's value
     */
    public function add(
        Surface $s, int|Closure $paint, array $at = [0.0, 0.0, 0.0], array $turn = [0.0, 0.0, 0.0], float $wood = 0.0, int $grain = 0,
        float $gloss = 0.0, float $glow = 0.0, float $jitter = 0.5, float $shift = 0.002, float $wave = 0.0025, float $waveRate = 9.0,
        float $wear = 1.0, float $vary = 0.09,
    ): self {
        $r = $this->random;
        $j = deg2rad($jitter);
        [$origin, $q] = $this->placed(
            [$at[0] + $r->signed() * $shift, $at[1] + $r->signed() * $shift * 0.5, $at[2] + $r->signed() * $shift],
            Q4::pitchYawRoll($turn[0] + $r->signed() * $j, $turn[1] + $r->signed() * $j, $turn[2] + $r->signed() * $j),
        );
        $value = 1 + $r->signed() * $vary;
        $hue = $r->signed() * $vary * 0.5;
        $offset = [$r->next() * 40, $r->next() * 40, $r->next() * 40];
        $phase = [$r->next() * 6, $r->next() * 6, $r->next() * 6];
        $flat = is_int($paint) ? Colour::hex($paint) : null;
        $base = intdiv(count($this->positions), 3);
        foreach ($s->points as $i => $p) {
            $n = $s->normals[$i];
            $w = $wave * 0.5 * (
                sin($p[0] * $waveRate + $p[1] * $waveRate * 0.7 + $phase[0]) + sin($p[1] * $waveRate * 1.3 - $p[2] * $waveRate + $phase[1])
                    + sin($p[2] * $waveRate * 0.9 + $p[0] * $waveRate * 0.6 + $phase[2])
            );
            $c = $flat ?? $paint($p);
            $c = is_int($c) ? Colour::hex($c) : $c;
            $peak = max($c[0], $c[1], $c[2], 1.0);
            array_push($this->positions, ...V3::add($origin, Q4::rotate($q, V3::addScaled($p, $n, $w))));
            array_push($this->normals, ...Q4::rotate($q, V3::unit($n)));
            array_push($this->colours, $c[0] / $peak * $value * (1 + $hue), $c[1] / $peak * $value, $c[2] / $peak * $value * (1 - $hue));
            array_push($this->rest, $p[$grain] + $offset[0], $p[($grain + 1) % 3] + $offset[1], $p[($grain + 2) % 3] + $offset[2]);
            array_push($this->surface, $gloss, $glow * $peak, $wood);
            $this->wear[] = ($s->edge[$i] ?? 0.0) * $wear;
        }
        foreach ($s->index as $k) {
            $this->index[] = $k + $base;
        }

        return $this;
    }

    /** @param  int  $point  its number */
    public function isBeyond(int $point): bool
    {
        foreach ($this->away as $part) {
            if (isset($part['extras']['away']) && $point >= $part['points'][0] && $point < $part['points'][1]) {
                return true;
            }
        }

        return false;
    }

    public function points(): int
    {
        return intdiv(count($this->positions), 3);
    }

    /** @param  list<float>  $baked 3 numbers a point */
    public function bake(array $baked): void
    {
        $this->baked = $baked;
    }

    /**
     * @param  Vec  $pivot  becomes the origin
     * @param  array<string, mixed>  $extras
     */
    public function glb(array $pivot = [0.0, 0.0, 0.0], array $extras = [], bool $doubleSided = false, string $paint = 'set'): string
    {
        $walls = array_column(array_column($this->away, 'extras'), 'wild');
        $said = ['name' => $this->name, 'licence' => 'CC0-1.0'] + ($walls === [] ? [] : ['wild' => $walls]);
        $w = new GltfWriter('Crisp Reel kit', $said + $extras);
        $material = $w->push('materials', [
            'name' => $paint, 'doubleSided' => $doubleSided, 'extras' => ['paint' => $paint],
            'pbrMetallicRoughness' => ['metallicFactor' => 0.0, 'roughnessFactor' => 0.9],
        ]);
        if ($this->parts === []) {
            $body = $this->rest($this->away);
            $isAny = array_filter($body, static fn (array $r): bool => $r['index'][1] > $r['index'][0]) !== [];
            $drawn = $isAny ? ['mesh' => $this->mesh($w, $this->name, $material, $body, $pivot)] : [];
            $top = [$w->push('nodes', ['name' => $this->name] + $drawn)];
            foreach ($this->away as $part) {
                $drawn = $w->push('nodes', [
                    'name' => 'surface of '.$part['node'], 'mesh' => $this->mesh($w, $part['node'], $material, [$part], $pivot),
                ]);
                $top[] = $w->push('nodes', ['name' => $part['node'], 'children' => [$drawn], 'extras' => $part['extras']]);
            }
        } else {
            $top = [$this->jointed($w, $material, $pivot)];
        }
        foreach ($this->mounts as $name => [$at, $turn]) {
            $top[] = $w->push('nodes', ['name' => 'mount:'.$name, 'translation' => V3::sub($at, $pivot), 'rotation' => $turn]);
        }
        $w->scene($top, $this->name);

        return $w->toGlb();
    }

    /**
     * The body and its turning parts as nodes that play the part of joints.
     *
     * @param  Vec  $pivot
     */
    private function jointed(GltfWriter $w, int $material, array $pivot): int
    {
        $body = $this->mesh($w, $this->name, $material, $this->rest($this->parts), $pivot);
        $children = [$w->push('nodes', ['name' => $this->name, 'mesh' => $body])];
        foreach ($this->parts as $part) {
            $drawn = $w->push('nodes', [
                'name' => $part['name'],
                'mesh' => $this->mesh($w, $part['name'], $material, [$part], $part['pivot']),
            ]);
            $children[] = $w->push('nodes', [
                'name' => 'joint:'.$part['name'], 'translation' => V3::sub($part['pivot'], $pivot), 'children' => [$drawn],
            ]);
        }

        return $w->push('nodes', ['name' => 'joint:body', 'children' => $children]);
    }

    /**
     * All that belongs to none of some parts.
     *
     * @param  list<array{points: array{int, int}, index: array{int, int}}>  $parts  in the order in which they were drawn
     * @return list<array{points: array{int, int}, index: array{int, int}}>
     */
    private function rest(array $parts): array
    {
        $rest = [];
        [$point, $index] = [0, 0];
        foreach ($parts as $part) {
            $rest[] = ['points' => [$point, $part['points'][0]], 'index' => [$index, $part['index'][0]]];
            [$point, $index] = [$part['points'][1], $part['index'][1]];
        }
        $rest[] = ['points' => [$point, $this->points()], 'index' => [$index, count($this->index)]];

        return $rest;
    }

    /**
     * @param  list<array{points: array{int, int}, index: array{int, int}}>  $ranges
     * @param  Vec  $pivot
     */
    private function mesh(GltfWriter $w, string $name, int $material, array $ranges, array $pivot): int
    {
        $positions = $normals = $bake = $surf = $colours = $rest = $index = [];
        $unit = $this->unitNormals();
        $done = 0;
        foreach ($ranges as ['points' => [$from, $to], 'index' => [$first, $last]]) {
            for ($i = $from; $i < $to; $i++) {
                for ($k = 0; $k < 3; $k++) {
                    $positions[] = $this->positions[3 * $i + $k] - $pivot[$k];
                    $normals[] = $unit[3 * $i + $k];
                    $colours[] = self::short($this->colours[3 * $i + $k]);
                    $rest[] = $this->rest[3 * $i + $k];
                }
                $colours[] = 65535;
                array_push(
                    $bake,
                    self::byte($this->baked[3 * $i] ?? 1.0),
                    self::byte(($this->baked[3 * $i + 1] ?? 0.0) / 4),
                    self::byte(($this->baked[3 * $i + 2] ?? 0.0) / 4),
                    self::byte($this->wear[$i]),
                );
                array_push(
                    $surf,
                    self::byte($this->surface[3 * $i]),
                    self::byte($this->surface[3 * $i + 1] / 2),
                    self::byte($this->surface[3 * $i + 2]),
                    0,
                );
            }
            for ($i = $first; $i < $last; $i++) {
                $index[] = $this->index[$i] - $from + $done;
            }
            $done += $to - $from;
        }

        return $w->push('meshes', ['name' => $name, 'primitives' => [[
            'attributes' => [
                'POSITION' => $w->vertices($positions, 'VEC3', bounds: true),
                'NORMAL' => $w->vertices($normals, 'VEC3'),
                'COLOR_0' => $w->vertices($colours, 'VEC4', GltfWriter::USHORT, true),
                '_BAKE' => $w->vertices($bake, 'VEC4', GltfWriter::UBYTE, true),
                '_SURF' => $w->vertices($surf, 'VEC4', GltfWriter::UBYTE, true),
                '_REST' => $w->vertices($rest, 'VEC3'),
            ],
            'indices' => $w->indices($index),
            'material' => $material,
        ]]]);
    }

    /** @return list<float> */
    private function unitNormals(): array
    {
        $out = [];
        for ($i = 0, $n = count($this->normals); $i < $n; $i += 3) {
            $u = V3::unit([$this->normals[$i], $this->normals[$i + 1], $this->normals[$i + 2]]);
            array_push($out, ...($u === [0.0, 0.0, 0.0] ? [0.0, 1.0, 0.0] : $u));
        }

        return $out;
    }

    private static function byte(float $v): int
    {
        return (int) round(max(0.0, min(1.0, $v)) * 255);
    }

    private static function short(float $v): int
    {
        return (int) round(max(0.0, min(1.0, $v)) * 65535);
    }
}
