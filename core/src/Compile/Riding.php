<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile;

use Closure;
use CrispReel\Core\Document\Item;
use CrispReel\Core\Math\Placement;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Motion\ClipTable;
use CrispReel\Core\Rig\Figure;

/** Rows made on a thing, taken along with it: by its place at each frame, in the space of whoever rides. */
final readonly class Riding
{
    /**
     * @param  Closure(float): Placement  $place  of the motion's own space at a frame of the scene, of size 1
     * @param  string  $key  what the places are computed from
     */
    private function __construct(private Closure $place, private int $hips, public string $key)
    {
    }

    /** @param  Closure(float): Placement  $at  where the motion's own space is in the scene, at a frame */
    public static function along(Item $rider, Figure $figure, Closure $at, string $key): self
    {
        $back = Placement::standing($rider->position, $rider->headingDeg, $rider->scale)->inverse();
        $place = static function (float $frame) use ($back, $at): Placement {
            $here = $back->of($at($frame));

            return new Placement($here->position, $here->rotation);
        };

        return new self($place, $figure->hips, $key);
    }

    /**
     * @param  list<float>  $row
     * @return list<float>
     */
    public function apply(array $row, float $frame): array
    {
        $place = ($this->place)($frame);
        [$x, $y, $z] = $place->point([$row[0], $row[1], $row[2]]);

        return ClipTable::withHips($row, $x, $y, $z, $this->hips, Q4::mul($place->rotation, ClipTable::rotation($row, $this->hips)));
    }

    public function at(float $frame): Placement
    {
        return ($this->place)($frame);
    }
}
