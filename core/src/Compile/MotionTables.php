<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile;

use CrispReel\Core\Document\AssetRef;
use CrispReel\Core\Document\AssetSource;
use CrispReel\Core\Document\Beat;
use CrispReel\Core\Document\Document;
use CrispReel\Core\Document\Item;
use CrispReel\Core\Meeting\Skin;
use CrispReel\Core\Motion\ClipTable;
use CrispReel\Core\Motion\Model\MotionRecipe;
use CrispReel\Core\Motion\Model\MotionSampler;
use CrispReel\Core\Motion\Repeat;
use CrispReel\Core\Rig\Figure;

/** Motions solved or fetched for a figure, in-points and speeds settled. */
final class MotionTables
{
    /** @var array<string, ClipTable> what several beats play is unpacked once */
    private array $tables = [];

    public function __construct(
        private readonly Document $document,
        private readonly AssetSource $assets,
        private readonly Memory $memory,
    ) {
    }

    public function recipeOf(Beat $beat): ?MotionRecipe
    {
        return $this->recipe($this->document->assets[$beat->motion], $beat->settings);
    }

    /**
     * A recording that is to go round: blended where it best begins again, or where the beat's own trim ends.
     *
     * @return array{table: ClipTable, key: string, from: float, to: float, distance: float}|null null: it is not to go round, or was made
     *   for it
     */
    public function round(Beat $beat, ClipTable $table, string $key, Figure $figure): ?array
    {
        $round = $beat->loops > 1 || $beat->play->fill !== null || $beat->play->keepLooping;
        if (! $round || $this->recipeOf($beat) !== null) {
            return null;
        }
        $trimmed = $beat->sourceIn > 0.0 || $beat->sourceOut !== null;
        $sought = hash(
            'sha256',
            json_encode(['round', Repeat::VERSION, $key, $trimmed ? [$beat->sourceIn, $beat->sourceOut] : []], JSON_THROW_ON_ERROR),
        );
        $kept = $this->assets->solved($sought);
        if ($kept === null) {
            $best = $trimmed
                ? Repeat::between($table, $figure, $beat->sourceIn, min($beat->sourceOut ?? INF, $table->seconds()))
                : Repeat::best($table, $figure);
            $kept = json_encode($best, JSON_THROW_ON_ERROR | JSON_PRESERVE_ZERO_FRACTION);
            $this->assets->keep($sought, $kept);
        }

        /** @var array{from: float, to: float, distance: float}|null $best */
        $best = json_decode($kept, true);
        if ($best === null) {
            return null;
        }
        if ($best['distance'] > Repeat::FITS) {
            // It jumps where it is trimmed, or at its ends.
            [$from, $to] = $trimmed ? [$best['from'], $best['to']] : [0.0, $table->seconds()];

            return ['table' => $table, 'key' => $key, 'from' => $from, 'to' => $to, 'distance' => $best['distance']];
        }
        $closed = $sought.'~';
        $bytes = $this->assets->solved($closed);
        if ($bytes === null) {
            $bytes = Repeat::closed($table, $figure, $best['from'], $best['to'])->toBytes();
            $this->assets->keep($closed, $bytes);
        }

        return ['table' => $this->tables[$closed] ??= ClipTable::fromBytes($bytes), 'key' => $closed] + $best;
    }

    /** @param  array{float, float}|null  $between  seconds of the motion that are played, in place of the beat's own */
    public function placed(
        Beat $beat, ClipTable $table, string $key, Figure $figure, float $pace, ?array $between = null,
    ): LaneSegment {
        $wanted = Adjust::key($key, $beat->play);
        if ($wanted !== $key) {
            [$table, $key] = [$this->tables[$wanted] ?? Adjust::table($this->assets, $table, $wanted, $beat->play, $figure), $wanted];
        }
        $table = $this->tables[$key] ??= $table;
        $in = min($between[0] ?? $beat->sourceIn, $table->seconds());
        $out = min($between[1] ?? $beat->sourceOut ?? $table->seconds(), $table->seconds());
        if ($out - $in < 1e-4) {
            throw UnableToCompile::emptyMotion($this->document->assets[$beat->motion]->name);
        }
        $fill = $beat->play->fill === null ? null : (float) max(1, $beat->play->fill - $beat->start);
        $timing = new Timing(
            $beat->play, $in, $out, $table->seconds(), $this->document->rate->seconds(1.0) * $beat->speed * $pace, $beat->loops, $fill,
        );

        return new LaneSegment($beat, $table, $key, $in, $out, $timing, $figure->hips);
    }

    /** @param  array<string, mixed>  $settings */
    public function recipe(AssetRef $asset, array $settings): ?MotionRecipe
    {
        $digest = $this->assets->digest($asset);
        if (! isset($digest['recipe'])) {
            return null;
        }

        /** @var array{model: string, settings?: array<string, mixed>} $r */
        $r = $digest['recipe'];

        return (new MotionRecipe($r['model'], $r['settings'] ?? []))->with($settings);
    }

    /**
     * @param  array<string, mixed>  $settings
     * @return array{ClipTable, string}
     */
    public function table(AssetRef $asset, array $settings, Item $item, Figure $figure): array
    {
        $recipe = $this->recipe($asset, $settings);
        if ($recipe === null) {
            $skins = new Skins($this->document, $this->assets, $this->memory);

            return ImportedMotion::table(
                $this->assets, $asset, $this->assets->digest($asset), $figure, static fn (): Skin => $skins->of($item, $figure),
            );
        }
        if (! $figure->isHuman()) {
            throw UnableToCompile::noFigure($asset->name, $item->name);
        }

        return $this->kept($recipe, $figure);
    }

    /** @return array{ClipTable, string} */
    public function kept(MotionRecipe $recipe, Figure $figure): array
    {
        $key = hash('sha256', json_encode([MotionSampler::VERSION, $recipe->toArray(), $figure->blob], JSON_THROW_ON_ERROR));
        if (isset($this->tables[$key])) {
            return [$this->tables[$key], $key];
        }
        $bytes = $this->assets->solved($key);
        if ($bytes !== null) {
            $table = $this->memory->of("clip {$key}", static fn (): ClipTable => ClipTable::fromBytes($bytes));

            return [$this->tables[$key] = $table, $key];
        }
        $table = MotionSampler::table($figure->body(), $recipe, $figure->morphs);
        $bytes = $table->toBytes();
        $this->assets->keep($key, $bytes);

        // Read back, so that the first answer and all later ones are the same bytes.
        return [ClipTable::fromBytes($bytes), $key];
    }

    public function stood(Beat $beat, Figure $figure): LaneSegment
    {
        [$table, $key] = $this->kept(new MotionRecipe('idle', ['seed' => 1, 'seconds' => 8]), $figure);

        $segment = $this->placed($beat, $table, $key, $figure, 1.0);
        $segment->lives = true;

        return $segment;
    }

    /** @return list<float> */
    public function standing(Figure $figure): array
    {
        if (! $figure->isHuman()) {
            $rest = $figure->skeleton->restTranslation($figure->hips);

            return [...$rest, ...$figure->skeleton->rotations, ...array_fill(0, count($figure->morphs), 0.0), 0.0, 0.0, 0.0];
        }

        return $this->kept(new MotionRecipe('idle', ['seed' => 1, 'seconds' => 8]), $figure)[0]->at(0.0);
    }
}
