<?php

declare(strict_types=1);

namespace CrispReel\Core\Kit\Places;

use Closure;
use CrispReel\Core\Geometry\Shapes;
use CrispReel\Core\Geometry\Surface;
use CrispReel\Core\Kit\Piece;

/**
 * A room with its four walls and its ceiling, each of which is taken away for a lens that stands behind it. Where one is away the room
 * goes on plainly, as if it were larger, so that no edge comes into the picture.
 *
 * @phpstan-type Hole array{float, float, float, float}
 */
final readonly class Walls
{
    /** Metres by which a room goes on behind a wall that is away. */
    private const ON = 9.0;

    /**
     * @param  array{int, int, int}  $colours  walls, ceiling, floor
     * @param  int  $skirting  colour
     */
    public function __construct(private float $w, private float $d, private float $h, private array $colours, private int $skirting)
    {
    }

    /**
     * The room, its middle at the origin: back (-z), left (-x), right (+x), front (+z), and the ceiling.
     *
     * @param  array<string, list<Hole>>  $holes  doors and windows by wall: from, to, low, high, in the wall's own frame
     * @param  array<string, Closure(Piece): mixed>  $on  what hangs on a wall, in its own frame: z from it
     */
    public function build(Piece $p, array $holes = [], array $on = []): void
    {
        foreach ($this->sides() as $name => [$x, $z, $yaw, $long]) {
            $p->wild($name, $x, 0.0, $z, function (Piece $q) use ($long, $holes, $on, $name): void {
                Wood::wall($q, $long, $this->h, $this->colours[0], $this->skirting, $holes[$name] ?? [], max(0.35, $long / 20));
                isset($on[$name]) && $on[$name]($q);
            }, $yaw);
        }
        $p->wild('ceiling', 0.0, $this->h + 0.06, 0.0, $this->ceiling(...), inward: [0.0, -1.0, 0.0]);
        $this->beyond($p);
        $this->corners($p);
    }

    /** A plain floor from wall to wall. */
    public function floor(Piece $p, float $y): void
    {
        $this->flat($p, [-$this->w / 2, $this->w / 2], [-$this->d / 2, $this->d / 2], $y, $this->colours[2], true);
    }

    /** @return array<string, array{float, float, float, float}> middle, turn and length */
    private function sides(): array
    {
        return [
            'back' => [0.0, -$this->d / 2, 0.0, $this->w], 'left' => [-$this->w / 2, 0.0, M_PI / 2, $this->d],
            'right' => [$this->w / 2, 0.0, -M_PI / 2, $this->d], 'front' => [0.0, $this->d / 2, M_PI, $this->w],
        ];
    }

    private function ceiling(Piece $q): void
    {
        // Over the walls' tops, so that no sun comes in along them.
        [$x, $z] = [$this->w / 2 + 0.3, $this->d / 2 + 0.3];
        $this->flat($q, [-$x, $x], [-$z, $z], -0.08, $this->colours[1], false);
        foreach (range(1, max(1, (int) floor($this->d / 1.5))) as $i) {
            Wood::board($q, $this->w - 0.1, 0.14, 0.12, Wood::DARK, 0.0, -0.13, $this->d * ($i / (floor($this->d / 1.5) + 1) - 0.5));
        }
    }

    private function beyond(Piece $p): void
    {
        [$x, $z, $far] = [$this->w / 2, $this->d / 2, self::ON];
        foreach (['back' => [0, -1], 'left' => [-1, 0], 'right' => [1, 0], 'front' => [0, 1]] as $name => [$i, $k]) {
            $xs = $i === 0 ? [-$x, $x] : ($i > 0 ? [$x, $x + $far] : [-$x - $far, -$x]);
            $zs = $k === 0 ? [-$z, $z] : ($k > 0 ? [$z, $z + $far] : [-$z - $far, -$z]);
            $p->beyond([$name], [], fn (Piece $q) => $this->flat($q, $xs, $zs, -0.012, $this->colours[2], true));
            $p->beyond([$name], ['ceiling'], fn (Piece $q) => $this->flat($q, $xs, $zs, $this->h, $this->colours[1], false));
            foreach ($i === 0 ? ['left', 'right'] : ['back', 'front'] as $n => $beside) {
                $p->beyond([$name], [$beside], function (Piece $q) use ($i, $k, $n, $x, $z, $far): void {
                    $side = $n === 0 ? -1.0 : 1.0;
                    $i === 0
                        ? $this->upright($q, [$side * $x, $k * $z], [$side * $x, $k * ($z + $far)], [-$side, 0.0])
                        : $this->upright($q, [$i * $x, $side * $z], [$i * ($x + $far), $side * $z], [0.0, -$side]);
                });
            }
        }
    }

    /** Floor and ceiling where two walls that meet are away. */
    private function corners(Piece $p): void
    {
        [$x, $z, $far] = [$this->w / 2, $this->d / 2, self::ON];
        foreach (['left' => [-$x - $far, -$x], 'right' => [$x, $x + $far]] as $one => $xs) {
            foreach (['back' => [-$z - $far, -$z], 'front' => [$z, $z + $far]] as $other => $zs) {
                $p->beyond([$one, $other], [], fn (Piece $q) => $this->flat($q, $xs, $zs, -0.012, $this->colours[2], true));
                $p->beyond([$one, $other], ['ceiling'], fn (Piece $q) => $this->flat($q, $xs, $zs, $this->h, $this->colours[1], false));
            }
        }
    }

    /**
     * @param  array{float, float}  $xs
     * @param  array{float, float}  $zs
     */
    private function flat(Piece $p, array $xs, array $zs, float $y, int $colour, bool $isFloor): void
    {
        $points = [];
        [$nx, $nz] = [max(1, (int) round(($xs[1] - $xs[0]) / 1.0)), max(1, (int) round(($zs[1] - $zs[0]) / 1.0))];
        for ($i = 0; $i <= $nx; $i++) {
            for ($j = 0; $j <= $nz; $j++) {
                $points[] = [$xs[0] + ($xs[1] - $xs[0]) * $i / $nx, $y, $zs[0] + ($zs[1] - $zs[0]) * $j / $nz];
            }
        }
        $this->sheet($p, $points, $nz, $nx, [0.0, $isFloor ? 1.0 : -1.0, 0.0], $colour);
    }

    /**
     * @param  array{float, float}  $a  x and z
     * @param  array{float, float}  $b
     * @param  array{float, float}  $facing
     */
    private function upright(Piece $p, array $a, array $b, array $facing): void
    {
        $points = [];
        for ($i = 0; $i <= 8; $i++) {
            for ($j = 0; $j <= 5; $j++) {
                $points[] = [$a[0] + ($b[0] - $a[0]) * $i / 8, $this->h * $j / 5, $a[1] + ($b[1] - $a[1]) * $i / 8];
            }
        }
        $this->sheet($p, $points, 5, 8, [$facing[0], 0.0, $facing[1]], $this->colours[0]);
    }

    /**
     * @param  list<array{float, float, float}>  $points
     * @param  array{float, float, float}  $facing
     */
    private function sheet(Piece $p, array $points, int $nu, int $nv, array $facing, int $colour): void
    {
        $sheet = Shapes::sheet($points, $nu, $nv);
        $isTurned = ($sheet->normals[0][0] * $facing[0] + $sheet->normals[0][1] * $facing[1] + $sheet->normals[0][2] * $facing[2]) < 0.0;
        $p->add(
            new Surface(
                $points, array_fill(0, count($points), $facing), $isTurned ? Surface::flipped($sheet->index) : $sheet->index, [],
                array_fill(0, count($points), 0.0),
            ),
            $colour, jitter: 0.0, shift: 0.0, wave: 0.0, wear: 0.0, vary: 0.0,
        );
    }
}
