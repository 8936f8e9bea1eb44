<?php

declare(strict_types=1);

namespace App\Bench;

use App\Assets\BlobStore;
use App\Assets\StoredAssets;
use App\Models\Asset;
use App\Models\Scene;
use App\Scenes\SceneStream;
use CrispReel\Core\Camera\CutLines;
use CrispReel\Core\Camera\Gate;
use CrispReel\Core\Camera\Landmarks;
use CrispReel\Core\Camera\Marks;
use CrispReel\Core\Camera\ShotSize;
use CrispReel\Core\Compile\CompiledScene;
use CrispReel\Core\Compile\Memory;
use CrispReel\Core\Coverage\Cover;
use CrispReel\Core\Coverage\SetUps;
use CrispReel\Core\Coverage\Stand;
use CrispReel\Core\Coverage\Style;
use CrispReel\Core\Document\AssetRef;
use CrispReel\Core\Math\Placement;
use CrispReel\Core\Motion\Model\MotionRecipe;
use CrispReel\Core\Motion\Model\MotionSampler;
use CrispReel\Core\Rig\Figure;

/** How exactly people are framed, told by their drawn vertices, and how long set-ups and first cuts take. */
final class FramingBench
{
    private const SIDES = [0, 35, -60, 90, 150, 180];

    private const VIEWS = [['level', 50.0], ['low', 28.0], ['high', 85.0]];

    /** Of those whose lines are told by vertices: the tightest is cut at the brow, which is no vertex. */
    private const SIZES = ['closeUp', 'mediumCloseUp', 'medium', 'threeQuarter', 'full', 'wide', 'veryWide'];

    /** Postures by motion model and seconds into it. */
    private const POSTURES = ['at rest' => null, 'walking' => ['walk', 0.9], 'talking' => ['talk', 1.3], 'seated' => ['act', 2.0]];

    public function __construct(
        private readonly SceneStream $stream,
        private readonly BlobStore $blobs,
        private readonly StoredAssets $assets,
        private readonly Memory $memory,
    ) {
    }

    /** @return array<string, mixed> */
    public function all(Scene $demo, int $figures = 10): array
    {
        return [
            'framing' => $this->lines($figures), 'over_shoulder' => (new PairsBench($this->assets))->all(),
            'covering' => $this->times($demo),
        ];
    }

    /** @return array<string, float|int> errors in percent of the picture's height */
    private function lines(int $figures): array
    {
        $errors = [];
        $times = [];
        $gate = new Gate(16 / 9);
        $performers = Asset::query()->where('kind', 'performer')->whereNull('production_id')->orderBy('id')->limit($figures)->get();
        foreach ($performers as $asset) {
            $version = $asset->versions()->orderByDesc('number')->firstOrFail();
            $ref = new AssetRef('a1', 'performer', $asset->name, $version->blob, $version->digest);
            $figure = new Figure($version->blob, $this->assets->digest($ref));
            $surface = new FramedSurface($figure, $this->blobs->get($version->blob));
            $landmarks = Landmarks::of($figure, $this->assets, $ref);
            foreach (self::POSTURES as $posture) {
                $row = self::row($figure, $posture);
                $place = Placement::standing([0.5, 0.0, -1.0], 25.0);
                $surface->pose($place, $row);
                $this->posture($landmarks->posed($figure, $place, $row), $surface, $gate, $errors, $times);
            }
        }

        return [
            'figures' => count($performers), 'lines' => count($errors), 'within_1_percent' => self::share($errors, 1.0),
            'within_3_percent' => self::share($errors, 3.0), 'worst_percent' => round(max([0.0, ...$errors]), 2),
            'solve_ms_median' => round(Figures::median($times === [] ? [0.0] : $times), 3),
        ];
    }

    /**
     * @param  list<float>  $errors
     * @param  list<float>  $times
     */
    private function posture(Marks $marks, FramedSurface $surface, Gate $gate, array &$errors, array &$times): void
    {
        foreach (self::SIZES as $name) {
            $size = ShotSize::named($name, $marks->posture);
            foreach (self::SIDES as $side) {
                foreach (self::VIEWS as [$height, $lens]) {
                    $begin = hrtime(true);
                    $aim = (new CutLines($marks, $size, $lens, $gate))->solve($marks->facing + deg2rad($side), 0.0, $height);
                    $times[] = (hrtime(true) - $begin) / 1e6;
                    foreach ([[$size->top, $size->topAt, true], [$size->bottom, $size->bottomAt, false]] as [$mark, $at, $top]) {
                        $seen = $surface->line($mark, $aim, $gate, $top);
                        if ($seen !== null) {
                            // The picture is two high.
                            $errors[] = 50 * abs($seen - $at);
                        }
                    }
                }
            }
        }
    }

    /**
     * @param  array{string, float}|null  $posture
     * @return list<float>
     */
    private static function row(Figure $figure, ?array $posture): array
    {
        if ($posture === null || ! $figure->isHuman()) {
            return [...($figure->rest('hips') ?? [0.0, 1.0, 0.0]), ...$figure->skeleton->rotations];
        }
        $settings = $posture[0] === 'act' ? ['score' => 'sitTalk'] : [];

        return MotionSampler::table($figure->body(), new MotionRecipe($posture[0], $settings + ['seed' => 3]), $figure->morphs)
            ->at($posture[1]);
    }

    /** @param  list<float>  $errors */
    private static function share(array $errors, float $most): float
    {
        return round(100 * count(array_filter($errors, static fn (float $e): bool => $e <= $most)) / max(1, count($errors)), 2);
    }

    /** @return array<string, float|int> */
    private function times(Scene $demo): array
    {
        $scene = $this->stream->compile($demo);
        $people = array_keys(array_filter($scene->document->items, static fn ($i): bool => in_array($i->name, ['Oda', 'Bram'], true)));
        $out = [];
        $ms = static function (callable $what): float {
            $begin = hrtime(true);
            $what();

            return round((hrtime(true) - $begin) / 1e6, 1);
        };
        $gate = new Gate(16 / 9);
        foreach (['first', 'again'] as $when) {
            $out["tray_{$when}_ms"] = $ms(fn () => $this->tray($scene, $people, $gate));
        }
        $cover = null;
        foreach (['first', 'again'] as $when) {
            $out["strip_{$when}_ms"] = $ms(function () use (&$cover, $scene, $people, $gate): void {
                $cover = new Cover($scene, $this->assets, $this->memory, $people, 0, $scene->frames, $gate);
            });
        }
        $out['frames'] = $scene->frames;
        foreach ($cover === null ? [] : Style::names() as $style) {
            $out["style_{$style}_ms"] = $ms(static fn () => $cover->cut($style));
            $cut = $cover->cut($style);
            $facts = $cover->facts($style, $cut);
            $out["{$style}_shots"] = count($cut);
            $out["{$style}_speaker_seen_percent"] = round(100 * $facts['seen'], 1);
            $out["{$style}_rules_broken"] = $facts['crossings'] + $facts['jumps'];
        }

        return $out;
    }

    /** @param  list<string>  $people */
    private function tray(CompiledScene $scene, array $people, Gate $gate): void
    {
        $stand = new Stand($scene, $this->assets, $this->memory, min(600, $scene->frames - 1), $gate);
        (new SetUps($stand))->of($people[0], $people[1] ?? null, 35.0, 'level');
    }
}
