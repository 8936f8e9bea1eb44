<?php

declare(strict_types=1);

namespace App\Bench;

use App\Assets\BlobStore;
use App\Assets\StoredAssets;
use App\Edits\EditRunner;
use App\Models\Production;
use App\Models\Scene;
use App\Scenes\SceneStream;
use CrispReel\Core\Compile\Adjust;
use CrispReel\Core\Compile\CompiledScene;
use CrispReel\Core\Compile\ImportedMotion;
use CrispReel\Core\Compile\Lane;
use CrispReel\Core\Document\Play;
use CrispReel\Core\Evaluate\SceneEvaluator;
use CrispReel\Core\Format\Gltf\AssetDigest;
use CrispReel\Core\Format\Gltf\GltfReader;
use CrispReel\Core\Geometry\SmoothCurve;
use CrispReel\Core\Math\Angle;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;
use CrispReel\Core\Motion\ClipTable;
use CrispReel\Core\Reel\ReelMap;
use CrispReel\Core\Rig\Figure;
use CrispReel\Core\Rig\Retarget;

/** How exact the core is: each figure as it was reached beside the bar that it is held to. */
final class ToleranceBench
{
    public function __construct(
        private readonly SceneStream $stream,
        private readonly EditRunner $runner,
        private readonly BlobStore $blobs,
        private readonly StoredAssets $assets,
    ) {
    }

    /** @return array<string, string> what is measured: reached / bar */
    public function all(Scene $demo, Production $production): array
    {
        $scene = $this->stream->compile($demo);
        $walk = $this->acted(
            $production,
            'Straight',
            [['do' => 'beat.add', 'item' => 'One', 'motion' => 'walk', 'start' => 0, 'path' => ['points' => [[0, 5]]]]],
        );
        $curve = $this->acted(
            $production,
            'Curve',
            [[
                'do' => 'beat.add',
                'item' => 'One',
                'motion' => 'walk',
                'start' => 0,
                'path' => ['points' => array_map(static fn (int $k): array => [2 - 2 * cos($k * 0.3), 2 * sin($k * 0.3)], range(1, 8))],
            ]],
        );
        $joins = $this->acted($production, 'Joins', [
            ['do' => 'beat.add', 'item' => 'One', 'motion' => 'walk', 'start' => 0, 'path' => ['points' => [[0, 3]]]],
            ...array_map(
                static fn (string $motion): array => [
                    'do' => 'beat.add', 'item' => 'One', 'motion' => $motion, 'join' => 'carryOn', 'joinFrames' => 12,
                ],
                ['talk', 'wave', 'idle'],
            ),
        ]);
        $held = $this->acted($production, 'Held', [
            ['do' => 'item.add', 'asset' => 'lantern', 'name' => 'Lamp', 'position' => [0.4, 0.9, 0.4]],
            ['do' => 'beat.add', 'item' => 'One', 'motion' => 'wave', 'start' => 0],
            ['do' => 'link.add', 'child' => 'Lamp', 'parent' => 'One', 'mount' => 'handR', 'from' => 20, 'keep' => 'place'],
            ['do' => 'contact.add', 'item' => 'One', 'effector' => 'handL', 'offset' => [0.25, 1.1, 0.3], 'from' => 10, 'to' => 60],
        ]);
        $lane = CoreBench::performer($scene);
        $others = array_values(array_filter($scene->lanes, static fn (Lane $l): bool => $l !== $lane && $l->figure->isHuman()));
        [$turns, $metres] = self::sampling($lane);
        [$jump, $heading, $foot] = self::joins($joins);

        return [
            'same_skeleton_deg' => self::line(self::sameSkeleton($lane), 1e-4),
            'limbs_of_another_body_deg' => self::line(self::limbs($lane, $others[0]->figure), 2.0),
            'its_feet_in_contact_m' => self::line($this->feetHeld($walk, $scene, $others[0]), 0.02),
            'limb_brought_to_a_place_m' => self::line(self::reached($held), 1e-4),
            'sampling_of_a_clip_deg' => self::line($turns, 0.1), 'sampling_of_a_clip_m' => self::line($metres, 0.001),
            'mirrored_twice_deg' => self::line(self::mirrored($lane), 0.01),
            'carried_on_m' => self::line($jump, 0.001), 'carried_on_deg' => self::line($heading, 0.1),
            'planted_foot_in_a_join_m' => self::line($foot, 0.005),
            'length_along_a_path_m' => self::line(self::along(), 0.001),
            'slip_on_a_straight_path_m' => self::line($this->slip($walk), 0.01),
            'slip_on_a_curve_of_2_m' => self::line($this->slip($curve), 0.02),
            'taken_in_place_m' => self::line(self::taken($held), 1e-6),
            'reel_frames_that_do_not_come_back' => self::line(self::reel($scene), 0.0),
        ];
    }

    private static function line(float $reached, float $bar): string
    {
        $say = static fn (float $v): string => $v === 0.0 ? '0' : ($v < 0.001 ? sprintf('%.1e', $v) : sprintf('%.4f', $v));

        return $say($reached).' / '.$say($bar).($reached <= $bar ? '' : ' not reached');
    }

    /** @param  list<array<string, mixed>>  $commands */
    private function acted(Production $production, string $name, array $commands): CompiledScene
    {
        $scene = $production->scenes()->create(['name' => "Tolerances, {$name}", 'mood' => 'neutral']);
        $this->runner->run($scene, null, [
            ['do' => 'item.add', 'asset' => 'oda-ferrant', 'name' => 'One', 'position' => [0, 0, 0]], ...$commands,
        ]);

        return $this->stream->compile($scene->refresh());
    }

    /** @return list<array{list<float>, list<float>}> rows of a lane, every fifth of its first 400 frames, and their turns alone */
    private static function rows(Lane $lane): array
    {
        return array_map(static function (int $i) use ($lane): array {
            $row = $lane->row(5 * $i);

            return [$row, array_slice($row, 3, 4 * $lane->figure->skeleton->count())];
        }, range(0, 80));
    }

    private static function sameSkeleton(Lane $lane): float
    {
        $s = $lane->figure->skeleton;
        $retarget = new Retarget($s, $s->roles, $s, $lane->figure->hips);
        $worst = 0.0;
        foreach (self::rows($lane) as [$row, $turns]) {
            [$made] = $retarget->pose($turns, [$row[0], $row[1], $row[2]], $lane->figure->hips);
            foreach ($s->roles as $j) {
                $worst = max($worst, rad2deg(Q4::angleBetween(self::turn($turns, $j), self::turn($made, $j))));
            }
        }

        return $worst;
    }

    /**
     * @param  list<float>  $turns
     * @return array{float, float, float, float}
     */
    private static function turn(array $turns, int $j): array
    {
        return [$turns[4 * $j], $turns[4 * $j + 1], $turns[4 * $j + 2], $turns[4 * $j + 3]];
    }

    /** Largest angle between the arms and the trunk of two bodies in one motion, degrees. */
    private static function limbs(Lane $lane, Figure $other): float
    {
        $s = $lane->figure->skeleton;
        $retarget = new Retarget($s, $s->roles, $other->skeleton, $other->hips);
        $worst = 0.0;
        foreach (self::rows($lane) as [$row, $turns]) {
            [$a] = $s->world($turns, [$row[0], $row[1], $row[2]], $lane->figure->hips);
            [$made, $at] = $retarget->pose($turns, [$row[0], $row[1], $row[2]], $lane->figure->hips);
            [$b] = $other->skeleton->world($made, $at, $other->hips);
            foreach ([
                ['upperArmL', 'lowerArmL'], ['lowerArmL', 'handL'], ['upperArmR', 'lowerArmR'], ['lowerArmR', 'handR'],
                ['spine', 'chest'], ['upperLegL', 'lowerLegL'], ['lowerLegR', 'footR'],
            ] as [$from, $to]) {
                $way = static fn (array $p, array $roles): array => V3::unit([
                    $p[3 * $roles[$to]] - $p[3 * $roles[$from]], $p[3 * $roles[$to] + 1] - $p[3 * $roles[$from] + 1],
                    $p[3 * $roles[$to] + 2] - $p[3 * $roles[$from] + 2],
                ]);
                [$u, $v] = [$way($a, $s->roles), $way($b, $other->skeleton->roles)];
                $worst = max($worst, rad2deg(atan2(V3::length(V3::cross($u, $v)), V3::dot($u, $v))));
            }
        }

        return $worst;
    }

    /** A walk made over for another body: how far its drawn soles stray on the ground or sink in. */
    private function feetHeld(CompiledScene $walk, CompiledScene $scene, Lane $other): float
    {
        $lane = array_values($walk->lanes)[0];
        $gltf = GltfReader::read(SkeletonClip::write($lane, 0, (int) $lane->end(), 24.0));
        $table = ImportedMotion::sampled($gltf->clips()[0], AssetDigest::skeleton($gltf, 0), $other->figure, 'walk');
        $id = (string) array_search($other, $scene->lanes, true);
        $soles = Soles::of($other->figure, $scene->document->assets[$scene->document->items[$id]->asset], $this->blobs, $this->assets);

        return max($soles->over(array_map($table->row(...), range(0, $table->count - 1))));
    }

    /** How far a hand is from the place that it is held to. */
    private static function reached(CompiledScene $s): float
    {
        $id = (string) array_key_first($s->holds);
        $hold = $s->holds[$id][0];
        $hand = $s->lanes[$id]->figure->skeleton->roles['handL'];

        return max(array_map(
            static fn (int $f): float => V3::distance(
                SceneEvaluator::jointPlace($s, $id, $hand, $f)->point($hold->own->position),
                $hold->at->position,
            ),
            range(10, 59),
        ));
    }

    /**
     * A clip as it came in against the even samples that scenes read, between them too.
     *
     * @return array{float, float} degrees, metres
     */
    private static function sampling(Lane $lane): array
    {
        $gltf = GltfReader::read(SkeletonClip::write($lane, 0, 240, 24.0));
        $clip = $gltf->clips()[0];
        $source = AssetDigest::skeleton($gltf, 0);
        $f = $lane->figure;
        $table = ImportedMotion::sampled($clip, $source, $f, 'clip');
        $root = $source->index[$f->skeleton->names[$f->hips]];
        $angle = $off = 0.0;
        for ($i = 0; $i < 600; $i++) {
            $t = fmod($i * 0.7548776662, 1.0) * $clip->seconds;
            [$turns, $at] = $clip->pose($source, $t, $root);
            $row = $table->at($t);
            foreach ($f->skeleton->roles as $j) {
                $angle = max(
                    $angle,
                    rad2deg(Q4::angleBetween(self::turn($turns, $source->index[$f->skeleton->names[$j]]), ClipTable::rotation($row, $j))),
                );
            }
            $off = max($off, V3::distance($at, [$row[0], $row[1], $row[2]]));
        }

        return [$angle, $off];
    }

    private static function mirrored(Lane $lane): float
    {
        $table = $lane->segments[0]->table;
        $twice = Adjust::adjusted(Adjust::adjusted($table, new Play(mirror: true), $lane->figure), new Play(mirror: true), $lane->figure);
        $worst = 0.0;
        for ($i = 0; $i < $table->count; $i += 7) {
            for ($j = 0; $j < $table->joints; $j++) {
                $worst = max(
                    $worst,
                    rad2deg(Q4::angleBetween(ClipTable::rotation($table->row($i), $j), ClipTable::rotation($twice->row($i), $j))),
                );
            }
        }

        return $worst;
    }

    /**
     * Where a motion carries on: the jump of what stays in place, the turn of it, and the way of the feet through the blend.
     *
     * @return array{float, float, float} metres, degrees, metres
     */
    private static function joins(CompiledScene $s): array
    {
        $lane = array_values($s->lanes)[0];
        $f = $lane->figure;
        [$jump, $turn, $way] = [0.0, 0.0, 0.0];
        foreach (array_slice($lane->segments, 1) as $k => $next) {
            $before = $lane->segments[$k];
            [$a, $b] = [$before->row($next->start), $next->row($next->start)];
            $gaps = [];
            foreach (['footL', 'footR'] as $role) {
                $j = $f->skeleton->roles[$role];
                [$p, $q] = [$f->standing($a, $j), $f->standing($b, $j)];
                $gaps[] = [hypot($p[0] - $q[0], $p[1] - $q[1]), abs(rad2deg(Angle::between($q[2], $p[2])))];
                $stood = $f->skeleton->jointIn($lane->row($next->start - 1), $f->hips, $j)[0];
                for ($frame = $next->start; $frame < $next->start + $next->joinFrames; $frame++) {
                    $now = $f->skeleton->jointIn($lane->row($frame), $f->hips, $j)[0];
                    $way = max($way, hypot($now[0] - $stood[0], $now[2] - $stood[2]));
                }
            }
            sort($gaps);
            $jump = max($jump, $gaps[0][0]);
            $turn = max($turn, $gaps[0][1]);
        }

        return [$jump, $turn, $way];
    }

    /** The length table of a smooth path against a sum of 200,000 chords, at forty places. */
    private static function along(): float
    {
        $points = [[0.0, 0.0, 0.0], [1.3, 0.0, 0.4], [1.5, 0.0, 3.1], [4.0, 0.0, 3.0], [4.2, 0.0, -1.0]];
        $curve = new SmoothCurve($points);
        $fine = 0.0;
        $worst = 0.0;
        $before = $curve->at(0.0);
        $steps = 200_000;
        for ($i = 1; $i <= $steps; $i++) {
            $at = $curve->at($curve->length() * $i / $steps);
            $fine += V3::distance($at, $before);
            $before = $at;
            if ($i % 5000 === 0) {
                $worst = max($worst, abs($fine - $curve->length() * $i / $steps));
            }
        }

        return $worst;
    }

    /** Farthest way of a sole's vertex over the ground while it touches it. */
    private function slip(CompiledScene $s): float
    {
        $id = (string) array_key_first($s->lanes);
        $lane = $s->lanes[$id];
        $soles = Soles::of($lane->figure, $s->document->assets[$s->document->items[$id]->asset], $this->blobs, $this->assets);

        return $soles->over(array_map(static fn (int $i): array => $lane->row($i / 2), range(0, (int) (2 * $lane->end()))))[0];
    }

    private static function taken(CompiledScene $s): float
    {
        $id = array_key_first($s->carries) ?? '';

        return V3::distance(SceneEvaluator::place($s, $id, 19.0)->position, SceneEvaluator::place($s, $id, 20.0)->position);
    }

    private static function reel(CompiledScene $s): float
    {
        $map = ReelMap::of($s);
        $lost = 0;
        for ($f = 0; $f < $map->length; $f++) {
            [$shot, $frame] = $map->toScene($f);
            $lost += $map->toReel($shot, $frame) === $f ? 0 : 1;
        }

        return (float) $lost;
    }
}
