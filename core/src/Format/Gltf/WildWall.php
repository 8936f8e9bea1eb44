<?php

declare(strict_types=1);

namespace CrispReel\Core\Format\Gltf;

use CrispReel\Core\Geometry\Plane;

/**
 * A wall of a set that is taken away for a lens behind it: a node named "wild:..." whose extras say to where its inner face looks.
 * What is named "beyond:..." is drawn in its place only, and is nothing that anybody stands on or sees from outside.
 */
final class WildWall
{
    public const WILD = 'wild:';

    public const BEYOND = 'beyond:';

    /** @return array<string, Plane> by the walls' names, in the file's own space */
    public static function planes(GltfReader $gltf): array
    {
        $out = [];
        $said = $gltf->list('nodes');
        foreach ($gltf->nodes as $i => $node) {
            $extras = is_array($said[$i]['extras'] ?? null) ? $said[$i]['extras'] : [];
            $inward = $extras['inward'] ?? null;
            if (! str_starts_with($node['name'], self::WILD) || ! is_array($inward) || ! is_numeric($extras['offset'] ?? null)) {
                continue;
            }
            [$x, $y, $z] = [...array_values($inward), null, null, null];
            if (is_numeric($x) && is_numeric($y) && is_numeric($z)) {
                $name = substr($node['name'], strlen(self::WILD));
                $out[$name] = new Plane([(float) $x, (float) $y, (float) $z], (float) $extras['offset']);
            }
        }

        return $out;
    }
}
