<?php

declare(strict_types=1);

namespace App\Bench;

use App\Assets\StoredAssets;
use App\Models\Asset;
use CrispReel\Core\Camera\SkinnedSurface;
use CrispReel\Core\Document\AssetRef;
use CrispReel\Core\Format\Gltf\GltfReader;
use CrispReel\Core\Meeting\Meeting;
use CrispReel\Core\Meeting\Meetings;
use CrispReel\Core\Meeting\Skin;
use CrispReel\Core\Motion\Model\MotionRecipe;
use CrispReel\Core\Motion\Model\MotionSampler;
use CrispReel\Core\Rig\Figure;

/** Motions of two, solved for pairs of unlike build: what it costs against one walk solved for one figure, and whose arms are too short. */
final class MeetingBench
{
    /** Pairs of each motion. */
    private const PAIRS = 6;

    /** Metres by which a hand may miss its place. */
    private const MISS = 0.01;

    public function __construct(private readonly StoredAssets $assets)
    {
    }

    /** @return array<string, float|int> */
    public function all(): array
    {
        $people = Asset::query()->where('kind', 'performer')->whereNull('production_id')->orderBy('id')->get()
            ->unique(static fn (Asset $a): string => explode(' in ', $a->name)[0])->map($this->person(...))->values()->all();
        $one = $people[0][0];
        $walk = self::milliseconds(static fn () => MotionSampler::table($one->body(), new MotionRecipe('walk'), $one->morphs));
        $out = [];
        foreach (Meetings::all() as $pair => $sheet) {
            $took = [];
            $short = $worst = 0;
            for ($n = 0; $n < self::PAIRS; $n++) {
                [$fa, $sa] = $people[$n % count($people)];
                [$fb, $sb] = $people[(3 * $n + 1) % count($people)];
                [$a, $b] = $pair === 'handOver'
                    ? [new MotionRecipe('handOver'), new MotionRecipe('receive')]
                    : [new MotionRecipe('act', ['score' => "{$pair}A"]), new MotionRecipe('act', ['score' => "{$pair}B"])];
                $first = [$fa, $sa, MotionSampler::table($fa->body(), $a, $fa->morphs), 1.0];
                $second = [$fb, $sb, MotionSampler::table($fb->body(), $b, $fb->morphs), 1.0];
                $miss = 0.0;
                $took[] = self::milliseconds(static function () use ($first, $second, $sheet, &$miss): void {
                    $miss = Meeting::solve($first, $second, $sheet)[2];
                });
                $short += $miss > self::MISS ? 1 : 0;
                $worst = max($worst, $miss);
            }
            sort($took);
            $median = $took[intdiv(self::PAIRS, 2)];
            $out += [
                "{$pair}_ms" => round($median, 1), "{$pair}_times_a_walk" => round($median / $walk, 2), "{$pair}_too_short_of_6" => $short,
                "{$pair}_worst_miss_cm" => round(100 * $worst, 1),
            ];
        }

        return $out;
    }

    /** @return array{Figure, Skin} */
    private function person(Asset $asset): array
    {
        $version = $asset->versions()->orderByDesc('number')->firstOrFail();
        $ref = new AssetRef('a1', 'performer', $asset->name, $version->blob, $version->digest);
        $figure = new Figure($version->blob, $this->assets->digest($ref));

        return [$figure, new Skin($figure, new SkinnedSurface(GltfReader::read($this->assets->blob($ref))))];
    }

    private static function milliseconds(callable $what): float
    {
        $start = hrtime(true);
        $what();

        return (hrtime(true) - $start) / 1e6;
    }
}
