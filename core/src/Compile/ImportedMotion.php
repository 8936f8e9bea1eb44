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
use CrispReel\Core\Math\V3;
use CrispReel\Core\Meeting\SelfTouch;
use CrispReel\Core\Meeting\Skin;
use CrispReel\Core\Motion\ClipTable;
use CrispReel\Core\Motion\FootLock;
use CrispReel\Core\Motion\RecordedFeet;
use CrispReel\Core\Motion\Repeat;
use CrispReel\Core\Rig\Bends;
use CrispReel\Core\Rig\Clip;
use CrispReel\Core\Rig\FaceShapes;
use CrispReel\Core\Rig\Figure;
use CrispReel\Core\Rig\Habits;
use CrispReel\Core\Rig\HumanRoles;
use CrispReel\Core\Rig\Recording;
use CrispReel\Core\Rig\Retarget;
use CrispReel\Core\Rig\Skeleton;
use CrispReel\Core\Rig\Stance;
use CrispReel\Core\Rig\UnableToMatch;

/**
 * A motion that came in as a file (glTF or BVH), sampled for a figure: as it is where the joints are the same, by human
 * roles where they are others.
 */
final class ImportedMotion
{
    private const RATE = 60.0;

    private const VERSION = 5;

    /**
     * @param  array<string, mixed>  $digest
     * @param  (\Closure(): Skin)|null  $skin  the figure's drawn surface, for hands that touch the body; null: they are left
     * @return array{ClipTable, string}
     */
    public static function table(AssetSource $assets, AssetRef $asset, array $digest, Figure $figure, ?\Closure $skin = null): array
    {
        $number = is_int($digest['clip'] ?? null) ? $digest['clip'] : 0;

        /** @var array<string, string> $roles chosen by hand */
        $roles = is_array($digest['rolesByHand'] ?? null) ? $digest['rolesByHand'] : [];
        // How much faster than it was recorded it is to go, when its rate was told wrongly.
        $pace = is_float($digest['pace'] ?? null) || is_int($digest['pace'] ?? null) ? (float) $digest['pace'] : 1.0;
        /** @var list<string> $leave */
        $leave = is_array($digest['leave'] ?? null) ? $digest['leave'] : [];
        $key = hash(
            'sha256',
            json_encode(
                [
                    'imported', self::VERSION, $asset->blob, $number, $figure->blob, $roles, $figure->skeleton->roles,
                    ...($pace === 1.0 ? [] : [$pace]), ...($leave === [] ? [] : [$leave]), $skin === null ? 'bare' : 'drawn',
                ],
                JSON_THROW_ON_ERROR,
            ),
        );
        $bytes = $assets->solved($key);
        if ($bytes === null) {
            [$clip, $source] = self::read($assets->blob($asset), $number, $asset->name, $figure);
            $clip = $pace === 1.0 ? $clip : $clip->paced($pace);
            $bytes = self::sampled($clip, $source, $figure, $asset->name, $roles, $leave, $skin)->toBytes();
            $assets->keep($key, $bytes);
        }

        return [ClipTable::fromBytes($bytes), $key];
    }

    /** @return array{Clip, Skeleton} */
    public static function read(string $bytes, int $number, string $name, ?Figure $figure): array
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
    private static function skeletonOf(GltfReader $gltf, ?Figure $figure): Skeleton
    {
        $names = array_column($gltf->nodes, 'name');

        return $figure !== null && count(array_intersect($figure->skeleton->names, $names)) > 0.8 * count($figure->skeleton->names)
            ? $figure->skeleton
            : AssetDigest::skeletonOfNodes($gltf);
    }

    /**
     * @param  array<string, string>  $rolesByHand  role to joint name
     * @param  list<string>  $leave  what is not mended, codes of RecordingCheck; with a + before it what is mended though it would not be
     *   unasked
     * @param  (\Closure(): Skin)|null  $skin
     */
    public static function sampled(
        Clip $clip, Skeleton $source, Figure $figure, string $name, array $rolesByHand = [], array $leave = [], ?\Closure $skin = null,
    ): ClipTable {
        if ($clip->seconds <= 0.0) {
            throw UnableToCompile::emptyMotion($name);
        }
        $same = self::sameRig($source, $figure->skeleton);
        $roles = $same ? [] : HumanRoles::chosen($source, $rolesByHand);
        $hips = $same ? ($source->index[$figure->skeleton->names[$figure->hips]] ?? 0) : ($roles['hips'] ?? 0);
        $recording = Recording::of($clip, $source, $roles, $hips, $leave);
        $count = $clip->samples(self::RATE);
        $rate = ($count - 1) / $clip->seconds;
        $rows = $same ? self::taken($recording, $figure, $rate, $count) : self::fitted(
            $recording, $figure, $rate, $count,
            in_array('ground', $leave, true) ? false : (in_array('+ground', $leave, true) ? true : null),
        );

        if (! $same && $skin !== null && $figure->isHuman()) {
            $rows = SelfTouch::applied($rows, $recording, $figure, $skin(), $rate);
        }
        $flat = self::withRoot($rows, $figure, self::face($clip, $figure->morphs, $recording->begins, $rate, $count));
        $table = ClipTable::fromRows($rate, $figure->skeleton->count(), $figure->morphs, $count, $flat, false);
        $round = Repeat::best($table, $figure);

        return $round === null || $round['distance'] > Repeat::FITS
            ? $table
            : ClipTable::fromRows($rate, $figure->skeleton->count(), $figure->morphs, $count, $flat, true);
    }

    /**
     * Joints of the same names, as they are.
     *
     * @return list<list<float>>
     */
    private static function taken(Recording $recording, Figure $figure, float $rate, int $count): array
    {
        $s = $figure->skeleton;
        [$p, $q] = $s->world($s->rotations);
        $above = $s->parents[$figure->hips];
        [$at, $turn] = $above < 0 ? [[0.0, 0.0, 0.0], Q4::IDENTITY] : [Stance::at($p, $above), Skeleton::turnOf($q, $above)];
        $rows = [];
        for ($i = 0; $i < $count; $i++) {
            [$rotations, $hips] = $recording->pose($i / $rate);
            [$wp, $wq] = $recording->skeleton->world($rotations, $hips, $recording->hips);
            $turned = [];
            foreach ($s->names as $j => $joint) {
                $k = $recording->skeleton->index[$joint] ?? null;
                array_push($turned, ...match (true) {
                    $k === null => $s->restRotation($j),
                    $k === $recording->hips => Q4::mul(Q4::conjugate($turn), Skeleton::turnOf($wq, $k)),
                    default => Skeleton::turnOf($rotations, $k),
                });
            }
            $place = Q4::rotate(Q4::conjugate($turn), V3::sub(Stance::at($wp, $recording->hips), $at));
            $rows[] = [...$place, ...$turned];
        }

        return $rows;
    }

    /**
     * Another body's motion: its limbs as they point, its feet where they are planted.
     *
     * @return list<list<float>>
     */
    private static function fitted(Recording $recording, Figure $figure, float $rate, int $count, ?bool $grounds): array
    {
        foreach (['hips', 'upperLegL', 'upperLegR', 'footL', 'footR'] as $need) {
            if (! isset($recording->roles[$need], $figure->skeleton->roles[$need])) {
                throw UnableToMatch::role($need, isset($recording->roles[$need]));
            }
        }
        if ($recording->leg() < 1e-6) {
            throw UnableToMatch::noLegs();
        }
        $feet = RecordedFeet::of($recording, $rate, $count, $grounds);
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
        $hips = $b->roles['hips'] ?? -1;
        foreach ($b->roles as $j) {
            $k = $a->index[$b->names[$j]] ?? null;
            if ($k === null) {
                return false;
            }
            // Hips are compared as they stand: what is above them may be laid out otherwise.
            $turns = $j === $hips
                ? [Skeleton::turnOf($a->world($a->rotations)[1], $k), Skeleton::turnOf($b->world($b->rotations)[1], $j)]
                : [$a->restRotation($k), $b->restRotation($j)];
            if (Q4::angleBetween(...$turns) > 0.002) {
                return false;
            }
            $p = $b->parents[$j];
            if ($p >= 0 && $j !== $hips && max(array_map(
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
     * How much of each shape of the face there is at each frame.
     *
     * @param  list<string>  $morphs
     * @return list<list<float>>
     */
    private static function face(Clip $clip, array $morphs, float $begins, float $rate, int $count): array
    {
        $tracks = [];
        foreach ($clip->channels as $c) {
            $map = $c->path === 'weights' ? FaceShapes::map(explode("\n", $c->target), $morphs) : [];
            if ($map !== []) {
                $tracks[] = [$c, $map];
            }
        }
        $rest = array_fill(0, count($morphs), 0.0);
        $out = [];
        for ($i = 0; $i < $count; $i++) {
            $row = $rest;
            foreach ($tracks as [$c, $map]) {
                $values = $c->at(max($begins, $i / $rate));
                foreach ($map as $m => $shares) {
                    $sum = 0.0;
                    foreach ($shares as $from => $share) {
                        $sum += $share * $values[$from];
                    }
                    // A file may hold the face in several meshes, each with the same shapes.
                    $row[$m] = max($row[$m], min(1.0, $sum));
                }
            }
            $out[] = array_values($row);
        }

        return $out;
    }

    /**
     * The rows flat, with shapes of the face and the root track (planar place and heading of the hips).
     *
     * @param  list<list<float>>  $rows
     * @param  list<list<float>>  $faces
     * @return list<float>
     */
    private static function withRoot(array $rows, Figure $figure, array $faces): array
    {
        $out = [];
        $heading = 0.0;
        foreach ($rows as $i => $row) {
            [$x, $z, $turn] = $figure->standing($row, $figure->hips);
            $heading += Angle::between($heading, $turn);
            array_push($out, ...$row, ...$faces[$i], ...[$x, $z, $heading]);
        }

        return $out;
    }
}
