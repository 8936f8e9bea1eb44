<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile;

use CrispReel\Core\Document\AssetRef;
use CrispReel\Core\Document\AssetSource;
use CrispReel\Core\Format\Bvh\BvhReader;
use CrispReel\Core\Format\Gltf\AssetDigest;
use CrispReel\Core\Format\Gltf\GltfReader;
use CrispReel\Core\Math\Angle;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Motion\ClipTable;
use CrispReel\Core\Motion\FootLock;
use CrispReel\Core\Motion\RecordedFeet;
use CrispReel\Core\Rig\Bends;
use CrispReel\Core\Rig\Clip;
use CrispReel\Core\Rig\Figure;
use CrispReel\Core\Rig\Habits;
use CrispReel\Core\Rig\HumanRoles;
use CrispReel\Core\Rig\Recording;
use CrispReel\Core\Rig\Retarget;
use CrispReel\Core\Rig\Skeleton;
use CrispReel\Core\Rig\UnableToMatch;

/**
 * A motion that came in as a file (glTF or BVH), sampled for a figure: as it is where the joints are the same, by human
 * roles where they are others.
 */
final class ImportedMotion
{
    private const RATE = 60.0;

    private const VERSION = 4;

    /**
     * @param  array<string, mixed>  $digest
     * @return array{ClipTable, string}
     */
    public static function table(AssetSource $assets, AssetRef $asset, array $digest, Figure $figure): array
    {
        $number = is_int($digest['clip'] ?? null) ? $digest['clip'] : 0;

        /** @var array<string, string> $roles chosen by hand */
        $roles = is_array($digest['rolesByHand'] ?? null) ? $digest['rolesByHand'] : [];
        // How much faster than it was recorded it is to go, when its rate was told wrongly.
        $pace = is_float($digest['pace'] ?? null) || is_int($digest['pace'] ?? null) ? (float) $digest['pace'] : 1.0;
        $key = hash(
            'sha256',
            json_encode(
                [
                    'imported', self::VERSION, $asset->blob, $number, $figure->blob, $roles, $figure->skeleton->roles,
                    ...($pace === 1.0 ? [] : [$pace]),
                ],
                JSON_THROW_ON_ERROR,
            ),
        );
        $bytes = $assets->solved($key);
        if ($bytes === null) {
            [$clip, $source] = self::read($assets->blob($asset), $number, $asset->name, $figure);
            $clip = $pace === 1.0 ? $clip : $clip->paced($pace);
            $bytes = self::sampled($clip, $source, $figure, $asset->name, $roles)->toBytes();
            $assets->keep($key, $bytes);
        }

        return [ClipTable::fromBytes($bytes), $key];
    }

    /** @return array{Clip, Skeleton} */
    private static function read(string $bytes, int $number, string $name, Figure $figure): array
    {
        if (BvhReader::looksLike($bytes)) {
            $bvh = BvhReader::read($bytes);

            return [$bvh->clip, $bvh->skeleton];
        }
        $gltf = GltfReader::read($bytes);
        $clip = $gltf->clips()[$number] ?? throw UnableToCompile::emptyMotion($name);

        return [$clip, $gltf->list('skins') === [] ? self::skeletonOf($gltf, $figure) : AssetDigest::skeleton($gltf, 0)];
    }

    /** A motion-only file has no skin: its nodes are the joints, or those of the figure if they bear the same names. */
    private static function skeletonOf(GltfReader $gltf, Figure $figure): Skeleton
    {
        $names = array_column($gltf->nodes, 'name');

        return count(array_intersect($figure->skeleton->names, $names)) > 0.8 * count($figure->skeleton->names)
            ? $figure->skeleton
            : AssetDigest::skeletonOfNodes($gltf);
    }

    /** @param  array<string, string>  $rolesByHand  role to joint name */
    public static function sampled(Clip $clip, Skeleton $source, Figure $figure, string $name, array $rolesByHand = []): ClipTable
    {
        if ($clip->seconds <= 0.0) {
            throw UnableToCompile::emptyMotion($name);
        }
        $same = self::sameRig($source, $figure->skeleton);
        $roles = $same ? [] : HumanRoles::chosen($source, $rolesByHand);
        $hips = $same ? ($source->index[$figure->skeleton->names[$figure->hips]] ?? 0) : ($roles['hips'] ?? 0);
        $recording = Recording::of($clip, $source, $roles, $hips);
        $count = $clip->samples(self::RATE);
        $rate = ($count - 1) / $clip->seconds;
        $rows = $same ? self::taken($recording, $figure, $rate, $count) : self::fitted($recording, $figure, $rate, $count);

        return ClipTable::fromRows($rate, $figure->skeleton->count(), $figure->morphs, $count, self::withRoot($rows, $figure), false);
    }

    /**
     * Joints of the same names, as they are.
     *
     * @return list<list<float>>
     */
    private static function taken(Recording $recording, Figure $figure, float $rate, int $count): array
    {
        $rows = [];
        for ($i = 0; $i < $count; $i++) {
            [$rotations, $place] = $recording->pose($i / $rate);
            $turned = [];
            foreach ($figure->skeleton->names as $j => $joint) {
                $k = $recording->skeleton->index[$joint] ?? null;
                array_push($turned, ...($k === null ? $figure->skeleton->restRotation($j) : array_slice($rotations, 4 * $k, 4)));
            }
            $rows[] = [...$place, ...$turned];
        }

        return $rows;
    }

    /**
     * Another body's motion: its limbs as they point, its feet where they are planted.
     *
     * @return list<list<float>>
     */
    private static function fitted(Recording $recording, Figure $figure, float $rate, int $count): array
    {
        foreach (['hips', 'upperLegL', 'upperLegR', 'footL', 'footR'] as $need) {
            if (! isset($recording->roles[$need], $figure->skeleton->roles[$need])) {
                throw UnableToMatch::role($need, isset($recording->roles[$need]));
            }
        }
        if ($recording->leg() < 1e-6) {
            throw UnableToMatch::noLegs();
        }
        $feet = RecordedFeet::of($recording, $rate, $count);
        $habits = new Habits($recording->upright, Bends::of($recording), $feet->flat, $feet->ankle);
        $retarget = new Retarget($recording->skeleton, $recording->roles, $figure->skeleton, $figure->hips, $habits);
        $rows = [];
        for ($i = 0; $i < $count; $i++) {
            [$turned, $place] = $retarget->pose(...[...$recording->pose($i / $rate), $recording->hips]);
            $rows[] = [...$place, ...$turned];
        }

        return FootLock::applied($rows, $figure, $rate, $feet->spans);
    }

    /** The same joint names at the same rest: the motion is taken as it is. */
    private static function sameRig(Skeleton $a, Skeleton $b): bool
    {
        foreach ($b->roles as $j) {
            $k = $a->index[$b->names[$j]] ?? null;
            if ($k === null || Q4::angleBetween($a->restRotation($k), $b->restRotation($j)) > 0.002) {
                return false;
            }
            $p = $b->parents[$j];
            if ($p >= 0 && $j !== ($b->roles['hips'] ?? -1) && max(array_map(
                static fn (float $u, float $v): float => abs($u - $v),
                $a->restTranslation($k),
                $b->restTranslation($j),
            )) > 0.001) {
                return false;
            }
        }

        return true;
    }

    /**
     * The rows flat, with the root track (planar place and heading of the hips) and shapes at rest.
     *
     * @param  list<list<float>>  $rows
     * @return list<float>
     */
    private static function withRoot(array $rows, Figure $figure): array
    {
        $out = [];
        $heading = 0.0;
        foreach ($rows as $row) {
            [$x, $z, $turn] = $figure->standing($row, $figure->hips);
            $heading += Angle::between($heading, $turn);
            array_push($out, ...$row, ...array_fill(0, count($figure->morphs), 0.0), ...[$x, $z, $heading]);
        }

        return $out;
    }
}
