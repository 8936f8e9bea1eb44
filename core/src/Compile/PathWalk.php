<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile;

use CrispReel\Core\Document\AssetSource;
use CrispReel\Core\Document\Beat;
use CrispReel\Core\Document\Finding;
use CrispReel\Core\Document\Item;
use CrispReel\Core\Document\Path;
use CrispReel\Core\Document\Severity;
use CrispReel\Core\Geometry\Solids;
use CrispReel\Core\Math\Placement;
use CrispReel\Core\Motion\ClipTable;
use CrispReel\Core\Motion\Model\Course;
use CrispReel\Core\Motion\Model\Gait;
use CrispReel\Core\Motion\Model\GaitStyle;
use CrispReel\Core\Motion\Model\Manner;
use CrispReel\Core\Motion\Model\MotionRecipe;
use CrispReel\Core\Motion\Model\MotionSampler;
use CrispReel\Core\Rig\Figure;

/** A walk along a drawn way over the scene's ground, from where the performer stands. */
final class PathWalk
{
    /** Speeds that a walk is asked to keep so that it arrives on time, metres a second. */
    private const SLOWEST = 0.4;

    private const FASTEST = 2.2;

    /** Bodies are checked against walls at these heights, metres. */
    private const BODY = [0.6, 1.25];

    /** @var list<array{string, string, float}> what the way meets: thing, kind (wall or step), metres along it */
    public array $met = [];

    /** Seconds of walking a second of the scene, for what the walk alone cannot make up. */
    public float $pace = 1.0;

    /** Second of the walk at which it is at its last place. */
    public float $passes = 0.0;

    private readonly Placement $place;

    private readonly Path $path;

    /** @param  array{float, float, float}  $from  x, z, heading of the stand before, in lane space */
    public function __construct(
        private readonly Beat $beat,
        private readonly Item $item,
        private readonly Figure $figure,
        private readonly MotionRecipe $recipe,
        private readonly Surroundings $around,
        private readonly array $from,
        private readonly float $ground,
        private readonly float $seconds,
    ) {
        assert($beat->path !== null);
        $this->path = $beat->path;
        $this->place = Placement::standing($item->position, $item->headingDeg, $item->scale);
    }

    /**
     * The solved walk in lane space, its key, and the height of the ground where it ends.
     *
     * @return array{ClipTable, string, float}
     */
    public function table(AssetSource $assets): array
    {
        $points = $this->points();
        $region = $this->region();
        $key = hash('sha256', json_encode([
            'path', MotionSampler::VERSION, $this->recipe->toArray(), $this->figure->blob,
            array_map(static fn (float $v): string => sprintf('%.5f', $v), array_merge(...$points)),
            array_map(static fn (float $v): string => sprintf('%.5f', $v), [
                ...$this->from, $this->ground, $this->item->scale, ...$this->item->position,
            ]),
            $this->path->changes, $this->path->goesOn, $this->path->faceDeg, $this->path->arrive === null ? null : sprintf(
                '%.4f', $this->seconds,
            ),
            $this->item->headingDeg, $this->around->signature($region),
        ], JSON_THROW_ON_ERROR));
        $kept = $assets->solved($key);
        if ($kept === null) {
            $kept = $this->solve($points, $region);
            $assets->keep($key, $kept);
        }
        $size = unpack('V', $kept);
        assert(is_array($size) && is_int($size[1]));
        $about = json_decode(substr($kept, 4, $size[1]), true);
        assert(is_array($about));

        /** @var array{met: list<array{string, string, float}>, pace: float|int, ground: float|int, passes: float|int} $about */
        $this->met = $about['met'];
        $this->pace = (float) $about['pace'];
        $this->passes = (float) $about['passes'];

        return [ClipTable::fromBytes(substr($kept, 4 + $size[1])), $key, (float) $about['ground']];
    }

    /** @return list<array{float, float}> in model metres, from the stand on */
    private function points(): array
    {
        $back = $this->place->inverse();
        $scale = $this->figure->body()->scale;
        $points = [[$this->from[0] / $scale, $this->from[1] / $scale]];
        foreach ($this->path->points as [$x, $z]) {
            $p = $back->point([$x, $this->place->position[1], $z]);
            $points[] = [$p[0] / $scale, $p[2] / $scale];
        }

        return $points;
    }

    /** @return array{float, float, float, float} */
    private function region(): array
    {
        $start = $this->place->point([$this->from[0], 0.0, $this->from[1]]);
        $x = [$start[0], ...array_column($this->path->points, 0)];
        $z = [$start[2], ...array_column($this->path->points, 1)];

        return [min($x) - 1.5, min($z) - 1.5, max($x) + 1.5, max($z) + 1.5];
    }

    /**
     * @param  list<array{float, float}>  $points
     * @param  array{float, float, float, float}  $region
     */
    private function solve(array $points, array $region): string
    {
        $solids = $this->around->solids($region);
        $body = $this->figure->body();
        $unit = $body->scale * $this->item->scale;
        $base = $this->place->position[1];
        $ground = function (float $x, float $z, float $ceiling) use ($solids, $body, $unit, $base): ?float {
            $p = $this->place->point([$x * $body->scale, 0.0, $z * $body->scale]);
            $top = $base + $ceiling * $unit;
            $best = Solids::bridged(static fn (float $px, float $pz): ?float => $solids->height($px, $pz, $top), $p[0], $p[2]);

            // Where no thing is, there is the floor of the scene.
            $best ??= $top >= 0.0 && $top - 2 * Course::STEP_UP <= 0.0 ? 0.0 : null;

            return $best === null ? null : ($best - $base) / $unit;
        };
        $course = Course::through($points, $ground, $this->ground / $body->scale, Course::STEP_UP / $unit);
        $style = $this->recipe->settings;
        $face = $this->path->faceDeg === null ? null : deg2rad($this->path->faceDeg - $this->item->headingDeg);
        $ways = $this->path->changes === [] ? [] : $this->ways($course, $points);
        [$speed, $pace] = $this->path->arrive === null ? [null, 1.0] : $this->onTime($course, $style, $face, $ways);
        if ($speed !== null) {
            $style = ['speed' => $speed] + $style;
        }
        $gait = Gait::along(
            $body, GaitStyle::fromArray($style), $course, $this->from[2], $face, (int) $this->recipe->number('seed', 1),
            $this->changes($style, $ways), $this->path->goesOn,
        );
        $table = MotionSampler::sampled($body, Manner::over($body, $gait->at(...), $style), $gait->seconds, false, $this->figure->morphs);
        $about = json_encode([
            'met' => [
                ...$this->walls($course, $solids, $unit),
                ...array_map(static fn (array $t): array => [sprintf('%.2f m', $t[1] * $unit), 'step', $t[0] * $unit], $course->tooHigh),
            ],
            'pace' => $pace, 'passes' => $gait->passes, 'ground' => $course->under($course->length()) * $body->scale,
        ], JSON_THROW_ON_ERROR);

        return pack('V', strlen($about)).$about.$table->toBytes();
    }

    /**
     * Speed of the walk that takes the time there is, and how much faster it has to play where no walk does.
     *
     * @param  array<string, mixed>  $style
     * @param  list<float>  $ways
     * @return array{float, float}
     */
    private function onTime(Course $course, array $style, ?float $face, array $ways): array
    {
        $takes = fn (float $v): float => Gait::secondsAlong(
            $this->figure->body(),
            GaitStyle::fromArray(['speed' => $v] + $style),
            $course,
            $this->from[2],
            $face,
            $this->changes(['speed' => $v] + $style, $ways),
            $this->path->goesOn,
        );
        [$low, $high] = [self::SLOWEST, $this->recipe->number('speed', 1.2) > self::FASTEST ? GaitStyle::FASTEST : self::FASTEST];
        for ($i = 0; $i < 18; $i++) {
            $middle = ($low + $high) / 2;
            $takes($middle) > $this->seconds ? $low = $middle : $high = $middle;
        }

        return [$high, $takes($high) / $this->seconds];
    }

    /**
     * How far along the course the changes of the walk are.
     *
     * @param  list<array{float, float}>  $points
     * @return list<float>
     */
    private function ways(Course $course, array $points): array
    {
        $out = [];
        $from = 0.0;
        foreach ($this->path->changes as $c) {
            [$px, $pz] = $points[$c->after];
            $best = INF;
            for ($s = $from, $at = $from; $s <= $course->length(); $s += 0.05) {
                [$x, $z] = $course->at($s);
                $away = hypot($x - $px, $z - $pz);
                if ($away < $best) {
                    [$best, $at] = [$away, $s];
                }
            }
            $out[] = $from = $at;
        }

        return $out;
    }

    /**
     * The manners that follow, their speeds in the measure in which the walk's own has been changed to be on time.
     *
     * @param  array<string, mixed>  $style
     * @param  list<float>  $ways
     * @return list<array{float, GaitStyle}>
     */
    private function changes(array $style, array $ways): array
    {
        $out = [];
        $usual = $this->recipe->number('speed', 1.2);
        $now = is_numeric($style['speed'] ?? null) ? (float) $style['speed'] : $usual;
        foreach ($ways as $k => $way) {
            $to = $this->path->changes[$k]->style;
            if (isset($to['speed'])) {
                $to['speed'] *= $now / $usual;
            }
            $style = $to + $style;
            $out[] = [$way, GaitStyle::fromArray($style)];
        }

        return $out;
    }

    /** @return list<array{string, string, float}> the first wall on the way */
    private function walls(Course $course, Solids $solids, float $unit): array
    {
        $scale = $this->figure->body()->scale;
        $world = fn (float $s, float $up): array => $this->place->point([
            $course->at($s)[0] * $scale, $course->under($s) * $scale + $up / $this->item->scale, $course->at($s)[1] * $scale,
        ]);
        for ($s = 0.0; $s < $course->length(); $s += 0.2) {
            foreach (self::BODY as $up) {
                $hit = $solids->between($world($s, $up), $world(min($s + 0.2, $course->length()), $up));
                if ($hit !== null) {
                    return [[$hit['name'], 'wall', $s * $unit + $hit['distance']]];
                }
            }
        }

        return [];
    }

    /** @return list<Finding> */
    public function notes(): array
    {
        return array_map(fn (array $m): Finding => $m[1] === 'wall'
            ? $this->finding(
                'path.wall', sprintf('%s walks into "%s" %.1f m along the path.', $this->item->name, $m[0], $m[2]),
                'Lead the path around it, or move it.',
            )
            : $this->finding(
                'path.step',
                sprintf('A rise of %s stands %.1f m along the path of %s, too high to step up.', $m[0], $m[2], $this->item->name),
                'Lead the path around it.',
            ), $this->met);
    }

    private function finding(string $code, string $sentence, string $remedy): Finding
    {
        return new Finding(
            $code, Severity::Harms, $sentence, remedy: $remedy, about: [$this->item->id, explode('~', $this->beat->id)[0]],
            frames: [$this->beat->start, $this->beat->start],
        );
    }
}
