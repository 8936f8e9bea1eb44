<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile;

use CrispReel\Core\Document\Beat;
use CrispReel\Core\Document\Item;
use CrispReel\Core\Document\Path;
use CrispReel\Core\Math\Placement;

/** Where a walk along a path begins. */
final class PathStart
{
    /** @param  array{feet: array<string, array{float, float, float}>, hips: array{float, float, float}}|null  $stance */
    public static function leadsSomewhere(Path $path, ?array $stance, Item $item): bool
    {
        $from = $stance === null ? [0.0, 0.0, 0.0] : CarryingOn::anchor($stance, $stance, 'foot');
        $at = Placement::standing($item->position, $item->headingDeg, $item->scale)->point([$from[0], 0.0, $from[1]]);

        return array_filter($path->points, static fn (array $p): bool => hypot($p[0] - $at[0], $p[1] - $at[2]) > 0.15) !== [];
    }

    /**
     * Where a walk begins: where its path says, else where one stands.
     *
     * @param  array{feet: array<string, array{float, float, float}>, hips: array{float, float, float}}|null  $stance
     * @return array{array{float, float, float}, float} x, z and heading, and height of the ground, in lane space
     */
    public static function of(Beat $beat, Item $item, ?array $stance, float $ground): array
    {
        if ($beat->path?->from === null) {
            return [$stance === null ? [0.0, 0.0, 0.0] : CarryingOn::anchor($stance, $stance, 'foot'), $ground];
        }
        [$x, $y, $z, $heading] = $beat->path->from;
        $at = Placement::standing($item->position, $item->headingDeg, $item->scale)->inverse()->point([$x, $y, $z]);

        return [[$at[0], $at[2], deg2rad($heading - $item->headingDeg)], $at[1]];
    }
}
