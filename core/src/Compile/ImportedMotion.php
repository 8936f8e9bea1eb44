<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile;

use CrispReel\Core\Document\AssetRef;
use CrispReel\Core\Format\Gltf\AssetDigest;
use CrispReel\Core\Format\Gltf\GltfReader;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Motion\Clip;
use CrispReel\Core\Motion\ClipTable;
use CrispReel\Core\Rig\Skeleton;

/** A motion that came in as a file, sampled for a figure whose joints bear the same names. */
final class ImportedMotion
{
    private const RATE = 60.0;

    /**
     * @param  array<string, mixed>  $digest
     * @return array{ClipTable, string}
     */
    public static function table(AssetSource $assets, AssetRef $asset, array $digest, Figure $figure): array
    {
        $number = is_int($digest['clip'] ?? null) ? $digest['clip'] : 0;
        $key = hash('sha256', "imported|{$asset->blob}|{$number}|{$figure->blob}");
        $bytes = $assets->solved($key);
        if ($bytes === null) {
            $gltf = GltfReader::read($assets->blob($asset));
            $clip = $gltf->clips()[$number] ?? throw UnableToCompile::emptyMotion($asset->name);
            $source = $gltf->list('skins') === [] ? $figure->skeleton : AssetDigest::skeleton($gltf, 0);
            $bytes = self::sampled($clip, $source, $figure, $asset->name)->toBytes();
            $assets->keep($key, $bytes);
        }

        return [ClipTable::fromBytes($bytes), $key];
    }

    public static function sampled(Clip $clip, Skeleton $source, Figure $figure, string $name): ClipTable
    {
        if ($clip->seconds <= 0.0) {
            throw UnableToCompile::emptyMotion($name);
        }
        $hips = $source->roles['hips'] ?? 0;
        $count = (int) ceil($clip->seconds * self::RATE) + 1;
        $scale = self::hipScale($source, $figure);
        $rows = [];
        $heading = 0.0;
        for ($i = 0; $i < $count; $i++) {
            [$rotations, $t] = $clip->pose($source, $clip->seconds * $i / ($count - 1), $hips);
            array_push($rows, $t[0] * $scale, $t[1] * $scale, $t[2] * $scale);
            foreach ($figure->skeleton->names as $j => $joint) {
                $k = $source->index[$joint] ?? null;
                array_push($rows, ...($k === null ? $figure->skeleton->restRotation($j) : array_slice($rotations, 4 * $k, 4)));
            }
            array_push($rows, ...array_fill(0, count($figure->morphs), 0.0));
            $q = [$rotations[4 * $hips], $rotations[4 * $hips + 1], $rotations[4 * $hips + 2], $rotations[4 * $hips + 3]];
            $turn = Q4::heading(Q4::mul($q, Q4::conjugate($source->restRotation($hips))));
            $heading += atan2(sin($turn - $heading), cos($turn - $heading));
            array_push($rows, $t[0] * $scale, $t[2] * $scale, $heading);
        }

        return ClipTable::fromRows(($count - 1) / $clip->seconds, $figure->skeleton->count(), $figure->morphs, $count, $rows, false);
    }

    private static function hipScale(Skeleton $source, Figure $figure): float
    {
        $from = $source->restPosition($source->roles['hips'] ?? 0)[1];
        $to = $figure->skeleton->restPosition($figure->hips)[1];

        return $from > 1e-6 && $to > 1e-6 ? $to / $from : 1.0;
    }
}
