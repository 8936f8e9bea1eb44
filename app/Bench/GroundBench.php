<?php

declare(strict_types=1);

namespace App\Bench;

use App\Models\Scene;
use App\Scenes\SceneStream;
use CrispReel\Core\Compile\ImportedMotion;
use CrispReel\Core\Format\Bvh\BvhReader;
use CrispReel\Core\Format\Bvh\BvhWriter;
use CrispReel\Core\Motion\Model\Course;
use CrispReel\Core\Motion\Model\Gait;
use CrispReel\Core\Motion\Model\GaitStyle;
use CrispReel\Core\Motion\Model\MotionRecipe;
use CrispReel\Core\Motion\Model\MotionSampler;
use CrispReel\Core\Motion\Repeat;
use CrispReel\Core\Rig\Figure;

/** What ground that is not even and motion of another body cost, against the same walk solved on even ground. */
final class GroundBench
{
    private const RUNS = 3;

    /** @return array<string, float> */
    public function all(Scene $scene): array
    {
        foreach (app(SceneStream::class)->compile($scene)->lanes as $lane) {
            if ($lane->figure->isHuman()) {
                return $this->of($lane->figure);
            }
        }

        return [];
    }

    /** @return array<string, float> */
    private function of(Figure $figure): array
    {
        $body = $figure->body();
        $walk = static fn (?\Closure $ground): array => [
            $gait = Gait::along($body, GaitStyle::fromArray(['speed' => 1.2]), Course::through([[0.0, 0.0], [0.0, 6.0]], $ground), 0.0, null),
            MotionSampler::sampled($body, $gait->at(...), $gait->seconds, false, $figure->morphs),
        ];
        $stair = static fn (float $x, float $z, float $ceiling): float => max(0.0, min(8.0, floor(($z - 1.2) / 0.3) + 1)) * 0.16;
        $slope = static fn (float $x, float $z, float $ceiling): float => max(0.0, min(4.0, $z - 1.2)) * 0.36;
        $even = $this->median(static fn (): array => $walk(null));
        $source = MotionSampler::table($body, new MotionRecipe('walkToMark', ['metres' => 6.0]), $figure->morphs);
        $frames = (int) floor($source->seconds() * 30);
        $text = BvhWriter::write($figure->skeleton, $figure->hips, array_map(static fn (int $i): array => $source->at($i / 30), range(0, $frames)), 1 / 30);
        $bvh = BvhReader::read($text);
        $fitted = $this->median(static fn () => ImportedMotion::sampled($bvh->clip, $bvh->skeleton, $figure, 'walk'));
        $round = $this->median(static fn (): ?array => Repeat::best($source, $figure));

        return [
            'walk_ms' => round($even, 1),
            'stair_times_a_walk' => round($this->median(static fn (): array => $walk($stair)) / $even, 2),
            'slope_times_a_walk' => round($this->median(static fn (): array => $walk($slope)) / $even, 2),
            'recording_fitted_times_a_walk' => round($fitted / $even, 2),
            'recording_ms_a_second' => round($fitted / max(0.1, $source->seconds()), 1), 'round_found_times_a_walk' => round($round / $even, 2),
        ];
    }

    private function median(callable $what): float
    {
        $took = [];
        for ($k = 0; $k < self::RUNS; $k++) {
            $start = hrtime(true);
            $what();
            $took[] = (hrtime(true) - $start) / 1e6;
        }
        sort($took);

        return $took[intdiv(self::RUNS, 2)];
    }
}
