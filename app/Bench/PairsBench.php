<?php

declare(strict_types=1);

namespace App\Bench;

use App\Assets\StoredAssets;
use App\Models\Asset;
use CrispReel\Core\Camera\Aim;
use CrispReel\Core\Camera\Gate;
use CrispReel\Core\Camera\Landmarks;
use CrispReel\Core\Camera\Marks;
use CrispReel\Core\Camera\OverShoulder;
use CrispReel\Core\Document\AssetRef;
use CrispReel\Core\Math\Placement;
use CrispReel\Core\Math\V3;
use CrispReel\Core\Motion\Model\MotionRecipe;
use CrispReel\Core\Motion\Model\MotionSampler;
use CrispReel\Core\Rig\Figure;

/** One over the shoulder of another, over pairs of unlike build and posture: how much the one in front covers, whether the face is free. */
final class PairsBench
{
    private const COVER = [0.26, 0.42];

    public function __construct(private readonly StoredAssets $assets)
    {
    }

    /** @return array<string, float|int> */
    public function all(int $most = 40): array
    {
        $gate = new Gate(16 / 9);
        $people = Asset::query()->where('kind', 'performer')->whereNull('production_id')->orderBy('id')->get()
            ->unique(static fn (Asset $a): string => explode(' in ', $a->name)[0])->values();
        $shown = $refused = $covers = $free = 0;
        $all = [];
        $n = 0;
        foreach ($people as $i => $one) {
            foreach ($people as $j => $other) {
                if ($i === $j || $n >= $most) {
                    continue;
                }
                $apart = [0.8, 1.2, 1.8, 2.6][$n % 4];
                $speaker = $this->marks($one, Placement::standing([0.0, 0.0, 0.0], 0.0), $n % 3 === 1);
                $listener = $this->marks($other, Placement::standing([0.0, 0.0, $apart], 180.0), $n % 5 === 2);
                $n++;
                $aim = self::best($speaker, $listener, $gate);
                if ($aim === null) {
                    $refused++;

                    continue;
                }
                $inner = self::inner($aim, $speaker, $listener, $gate);
                $all[] = $cover = ($inner + 1) / 2;
                $shown++;
                $covers += $cover >= self::COVER[0] && $cover <= self::COVER[1] ? 1 : 0;
                $free += $aim->project($speaker->middle('eyes'), $gate)[0] > $inner ? 1 : 0;
            }
        }

        return [
            'pairs' => $n, 'shown' => $shown, 'refused' => $refused, 'cover_in_bounds' => $covers, 'face_free' => $free,
            'cover_least_percent' => round(100 * min([1.0, ...$all]), 1), 'cover_most_percent' => round(100 * max([0.0, ...$all]), 1),
        ];
    }

    private function marks(Asset $asset, Placement $place, bool $sits): Marks
    {
        $version = $asset->versions()->orderByDesc('number')->firstOrFail();
        $ref = new AssetRef('a1', 'performer', $asset->name, $version->blob, $version->digest);
        $figure = new Figure($version->blob, $this->assets->digest($ref));
        $row = $sits && $figure->isHuman()
            ? MotionSampler::table($figure->body(), new MotionRecipe('act', ['score' => 'sitTalk', 'seed' => 3]), $figure->morphs)->at(2.0)
            : [...($figure->rest('hips') ?? [0.0, 1.0, 0.0]), ...$figure->skeleton->rotations];

        return Landmarks::of($figure, $this->assets, $ref)->posed($figure, $place, $row);
    }

    /** The most pleasing of the sizes and lenses that are tried for a pair. */
    private static function best(Marks $speaker, Marks $listener, Gate $gate): ?Aim
    {
        $best = null;
        $least = INF;
        foreach (['medium' => 0.0, 'mediumCloseUp' => 0.9, 'threeQuarter' => 1.4] as $size => $dear) {
            foreach ([50.0, 65.0, 40.0, 85.0] as $k => $lens) {
                $aim = OverShoulder::solve($speaker, $listener, $size, 1.0, $lens, $gate);
                $cost = $aim instanceof Aim ? $dear + 0.12 * $k + OverShoulder::cost($aim, $listener, $gate) : INF;
                if ($aim instanceof Aim && $cost < $least) {
                    [$best, $least] = [$aim, $cost];
                }
            }
        }

        return $best;
    }

    /** How far the one in front reaches into the picture from its left edge at -1, told by a projection of its own. */
    private static function inner(Aim $aim, Marks $speaker, Marks $listener, Gate $gate): float
    {
        $half = $gate->sensorWidthMm / 2 / $aim->focalMm;
        $seen = static function (array $p) use ($aim, $half, $gate): array {
            $d = V3::sub($p, $aim->position);
            $ahead = V3::dot($d, $aim->axis());
            $right = -$d[0] * cos($aim->yaw) + $d[2] * sin($aim->yaw);
            $level = $d[0] * sin($aim->yaw) + $d[2] * cos($aim->yaw);

            return [$right / max(0.01, $ahead) / $half, tan(atan2($d[1], $level) - $aim->pitch) / $half * $gate->aspect];
        };
        $low = $seen($speaker->middle('chin'))[1] - 0.25;
        $all = array_map($seen, [...$listener->of('crown'), ...$listener->of('mass')]);
        $in = array_filter($all, static fn (array $p): bool => $p[1] > $low);

        return max([-1.0, ...array_column($in, 0)]);
    }
}
