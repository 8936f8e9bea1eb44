<?php

declare(strict_types=1);

namespace App\Bench;

use App\Edits\EditRunner;
use App\Models\Production;
use App\Models\Scene;
use App\Scenes\DocumentBuilder;
use App\Scenes\SceneStream;
use CrispReel\Core\Bake\PoseStream;
use CrispReel\Core\Compile\CompiledScene;
use CrispReel\Core\Compile\Hold;
use CrispReel\Core\Compile\Lane;
use CrispReel\Core\Document\Document;
use CrispReel\Core\Geometry\RayTree;
use CrispReel\Core\Motion\ClipTable;
use CrispReel\Core\Rig\Skeleton;

/** What performances cost: blends, contacts, crowds, rays; and how that grows. */
final class PerformanceBench
{
    private const POSES = 4000;

    /** Roles of the skeleton on which blends are compared: 24 joints. */
    private const SIDED = ['shoulder', 'upperArm', 'lowerArm', 'hand', 'upperLeg', 'lowerLeg', 'foot', 'toes', 'eye'];

    public function __construct(private readonly SceneStream $stream, private readonly EditRunner $runner)
    {
    }

    /** @return array<string, array<string, float|int>> */
    public function all(Scene $scene, Production $production): array
    {
        return [
            'two_clips_blended' => $this->blended($this->stream->compile($scene)), 'lock_and_contacts' => $this->held($scene),
            'fifty_performers' => $this->fifty($production), 'growth' => $this->growth($production), 'rays' => $this->rays(),
        ];
    }

    /**
     * Two clips blended by halves with world places, by the core's tables and by three.js.
     *
     * @return array<string, float|int>
     */
    private function blended(CompiledScene $scene): array
    {
        $lane = CoreBench::performer($scene);
        [$skeleton, $joints] = self::small($lane);
        $rows = static fn (int $from): array => array_map(
            static fn (int $i): array => self::picked($lane->row($from + $i), $joints),
            range(0, 239),
        );
        [$a, $b] = [$rows(0), $rows(300)];
        $table = static fn (array $r): ClipTable => ClipTable::fromRows(
            24.0,
            count($joints),
            [],
            240,
            array_merge(...array_map(static fn (array $v): array => [...$v, 0.0, 0.0, 0.0], $r)),
            false,
        );
        [$ta, $tb] = [$table($a), $table($b)];
        $n = count($joints);
        $width = $ta->width;
        $seconds = 239 / 24;
        $pose = static function (int $i) use ($ta, $tb, $n, $width, $skeleton, $seconds): array {
            $t = fmod($i * 0.7548776662, 1.0) * $seconds;
            $row = ClipTable::between($ta->at($t), 0, $tb->at($t), 0, 0.5, $n, $width);

            return $skeleton->world(array_slice($row, 3, 4 * $n), [$row[0], $row[1], $row[2]], 0);
        };
        $places = [];
        $ours = self::timed(self::POSES, static function (int $i) use ($pose, &$places): void {
            $places = $pose($i)[0];
        });
        $three = CoreBench::three(SkeletonClip::bones($skeleton, 0, [$a, $b], 24.0), $seconds, self::POSES);
        $worst = 0.0;
        foreach ($skeleton->names as $j => $name) {
            for ($k = 0; $k < 3; $k++) {
                $worst = max($worst, abs($places[3 * $j + $k] - $three['places'][$name][$k]));
            }
        }

        return [
            'joints' => $n, 'core_ms_per_pose' => $ours, 'three_ms_per_pose' => $three['ms'], 'ratio' => $ours / $three['ms'],
            'bar' => 1.0, 'largest_difference_m' => $worst,
        ];
    }

    /** @return array{Skeleton, list<int>} the figure's 24 main joints as a skeleton of their own, and which they are */
    private static function small(Lane $lane): array
    {
        $full = $lane->figure->skeleton;
        $roles = ['hips', 'spine', 'chest', 'upperChest', 'neck', 'head'];
        foreach (self::SIDED as $r) {
            array_push($roles, $r.'L', $r.'R');
        }
        $joints = array_values(array_intersect_key($full->roles, array_flip($roles)));
        sort($joints);
        $joints = array_slice($joints, 0, 24);
        $order = array_flip($joints);
        $parents = $t = $q = [];
        foreach ($joints as $j) {
            for ($p = $full->parents[$j]; $p >= 0 && ! isset($order[$p]); $p = $full->parents[$p]);
            $parents[] = $p < 0 ? -1 : $order[$p];
            array_push($t, ...$full->restTranslation($j));
            array_push($q, ...$full->restRotation($j));
        }

        return [
            new Skeleton(
                array_map(static fn (int $j): string => $full->names[$j], $joints),
                $parents,
                $t,
                $q,
                array_fill(0, 3 * count($joints), 1.0),
            ),
            $joints,
        ];
    }

    /**
     * @param  list<float>  $row
     * @param  list<int>  $joints
     * @return list<float>
     */
    private static function picked(array $row, array $joints): array
    {
        $out = [$row[0], $row[1], $row[2]];
        foreach ($joints as $j) {
            array_push($out, ...array_slice($row, 3 + 4 * $j, 4));
        }

        return $out;
    }

    /**
     * A performer in a join, with foot lock, and with two contacts on top, against the plain blend of the same two rows.
     *
     * @return array<string, float|int>
     */
    private function held(Scene $scene): array
    {
        $d = (array) json_decode(DocumentBuilder::build($scene)->toJson(), true);
        $who = null;
        foreach ((array) $d['beats'] as $b) {
            $who ??= is_array($b) ? $b['item'] : null;
        }
        $plain = $this->stream->compile($scene);
        $id = is_string($who) ? $who : '';
        $lane = $plain->lanes[$id];
        $join = null;
        $at = 0;
        foreach ($lane->segments as $k => $s) {
            // A join in which nothing else is held.
            $free = array_filter($plain->holds[$id] ?? [], static fn (Hold $h): bool => $h->contact->weight($s->start + 2) > 0.0) === [];
            [$join, $at] = $join === null && $free && $k > 0 && $s->joinFrames > 3 ? [$s, $k] : [$join, $at];
        }
        assert($join !== null);
        // Ten centimetres over where the hands are: within reach, as contacts are.
        $moment = $plain->poses->at($join->start + 2.0);
        $points = array_map(
            static fn (string $side): array => $moment->joint($id, $lane->figure->skeleton->roles['hand'.$side])->point([0.0, 0.1, 0.0]),
            ['L' => 'L', 'R' => 'R'],
        );
        // Without what is carried: closing the hand on a thing is neither a lock nor a contact.
        $held = $this->stream->compileDocument(Document::fromArray([
            'links' => [],
            'contacts' => array_map(
                static fn (string $side): array => [
                    'id' => "bench{$side}", 'item' => $id, 'effector' => "hand{$side}", 'offset' => $points[$side], 'from' => 0,
                    'turn' => 'keep',
                ],
                ['L', 'R'],
            ),
        ] + $d));
        $f = static fn (int $i): float => $join->start + ($i % 5) + 0.5;
        $before = $lane->segments[max(0, $at - 1)];
        $n = $lane->figure->skeleton->count();
        $plainly = static function (int $i) use ($before, $join, $f, $n, $lane): void {
            $row = $join->row($f($i));
            $row = ClipTable::between($before->row($f($i)), 0, $row, 0, 0.5, $n, count($row));
            $lane->figure->skeleton->world(array_slice($row, 3, 4 * $n), [$row[0], $row[1], $row[2]], $lane->figure->hips);
        };
        $wholly = static function (int $i) use ($held, $id, $f, $n): void {
            $row = ($held->poses->at($f($i)))->row($id);
            $held->lanes[$id]->figure->skeleton->world(
                array_slice($row, 3, 4 * $n),
                [$row[0], $row[1], $row[2]],
                $held->lanes[$id]->figure->hips,
            );
        };
        // By turns, and the best round of each: a machine that slows down in between would tell a tale.
        [$blend, $all] = [INF, INF];
        for ($round = 0; $round < 6; $round++) {
            $blend = min($blend, self::timed(700, $plainly));
            $all = min($all, self::timed(700, $wholly));
        }

        return ['blend_ms' => $blend, 'with_foot_lock_and_two_contacts_ms' => $all, 'ratio' => $all / $blend, 'bar' => 3.0];
    }

    /** @return array<string, float|int> */
    private function fifty(Production $production): array
    {
        $scene = $this->crowd($production, 50, 60);
        gc_collect_cycles();
        memory_reset_peak_usage();
        $begin = hrtime(true);
        $compiled = $this->stream->compile($scene);
        $bytes = PoseStream::all($compiled);
        $baked = (hrtime(true) - $begin) / 1e9;
        $peak = memory_get_peak_usage() / 1e6;
        $d = (array) json_decode(DocumentBuilder::build($scene)->toJson(), true);
        $beats = is_array($d['beats']) ? array_values($d['beats']) : [];
        $first = is_array($beats[0]) ? $beats[0] : [];
        $beats[0] = ['speed' => 0.9] + $first;
        $begin = hrtime(true);
        $changed = $this->stream->compileDocument(Document::fromArray(['beats' => $beats] + $d));
        PoseStream::bake($changed, PoseStream::moving($changed), 10);
        $edited = (hrtime(true) - $begin) / 1e6;

        return [
            'frames' => $compiled->frames, 'performers' => count($compiled->lanes), 'compile_and_bake_s' => $baked, 'bar_s' => 10.0,
            'peak_mb' => $peak, 'bar_mb' => 256.0, 'stream_mb' => $bytes / 1e6, 'edit_to_48_frames_ms' => $edited, 'bar_ms' => 150.0,
        ];
    }

    private function crowd(Production $production, int $count, int $seconds): Scene
    {
        $scene = $production->scenes()->create(['name' => "Crowd {$count} {$seconds}", 'mood' => 'dusk']);
        $this->runner->run(
            $scene,
            null,
            [[
                'do' => 'crowd.add', 'assets' => ['oda-ferrant', 'bram-tiel'], 'motions' => ['idle', 'talk', 'walk'], 'count' => $count,
                'area' => [[-15, -15], [15, -15], [15, 15], [-15, 15]], 'seed' => 2,
            ]],
        );
        $beat = $scene->beats()->orderBy('id')->firstOrFail();
        $this->runner->run(
            $scene->refresh(),
            null,
            [['do' => 'beat.set', 'beat' => $beat->id, 'play' => ['keepLooping' => null, 'skip' => null, 'fill' => 24 * $seconds]]],
        );

        return $scene->refresh();
    }

    /**
     * Bake times for twice and four times as many performers, and as many seconds; the largest departure from a straight
     * line through the first and the last.
     *
     * @return array<string, float|int>
     */
    private function growth(Production $production): array
    {
        $out = [];
        foreach (['performers' => [[10, 20], [20, 20], [40, 20]], 'seconds' => [[10, 20], [10, 40], [10, 80]]] as $what => $sizes) {
            $times = [];
            foreach ($sizes as [$count, $seconds]) {
                $compiled = $this->stream->compile(
                    $production->scenes()->where('name', "Crowd {$count} {$seconds}")->first()
                        ?? $this->crowd($production, $count, $seconds)
                );
                $begin = hrtime(true);
                PoseStream::all($compiled);
                $times[] = (hrtime(true) - $begin) / 1e6;
            }
            $out["{$what}_doubled"] = $times[1] / $times[0];
            $out["{$what}_fourfold"] = $times[2] / $times[0];
            $out["{$what}_off_the_line"] = abs($times[1] - ($times[0] + ($times[2] - $times[0]) / 3)) / $times[2];
        }

        return $out;
    }

    /** @return array<string, float|int> */
    private function rays(): array
    {
        $n = 224;
        $height = static fn (float $x, float $z): float => sin($x * 0.3) * cos($z * 0.2) * 2 + sin($x * 3 + $z) * 0.05;
        $flat = [];
        for ($i = 0; $i < $n; $i++) {
            for ($j = 0; $j < $n; $j++) {
                [$x, $z] = [$i * 0.2, $j * 0.2];
                $p = [
                    [$x, $height($x, $z), $z], [$x + 0.2, $height($x + 0.2, $z), $z], [$x, $height($x, $z + 0.2), $z + 0.2],
                    [$x + 0.2, $height($x + 0.2, $z + 0.2), $z + 0.2],
                ];
                array_push($flat, ...$p[0], ...$p[2], ...$p[1], ...$p[1], ...$p[2], ...$p[3]);
            }
        }
        $begin = hrtime(true);
        $tree = RayTree::of($flat);
        $built = (hrtime(true) - $begin) / 1e9;
        $at = static fn (int $i): array => [fmod($i * 0.7548776662, 1.0) * 44, fmod($i * 0.5698402910, 1.0) * 44];
        $down = self::timed(40_000, static function (int $i) use ($tree, $at): void {
            [$x, $z] = $at($i);
            $tree->floor($x, $z);
        });
        $any = self::timed(20_000, static function (int $i) use ($tree, $at): void {
            [$x, $z] = $at($i);
            $tree->hit([22.0, 2.6, 22.0], [$x - 22.0, -2.0, $z - 22.0], 1.0);
        });

        return [
            'triangles' => $tree->count(), 'build_s' => $built, 'ground_rays_per_second' => (int) (1000 / $down),
            'any_rays_per_second' => (int) (1000 / $any), 'bar' => 100_000,
        ];
    }

    /**
     * Milliseconds a round, after a warm-up.
     *
     * @param  callable(int): void  $work
     */
    private static function timed(int $rounds, callable $work): float
    {
        for ($i = 0; $i < $rounds; $i++) {
            $work($i);
        }
        $begin = hrtime(true);
        for ($i = 0; $i < $rounds; $i++) {
            $work($i);
        }

        return (hrtime(true) - $begin) / 1e6 / $rounds;
    }
}
