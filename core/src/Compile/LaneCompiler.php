<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile;

use CrispReel\Core\Document\AssetRef;
use CrispReel\Core\Document\Beat;
use CrispReel\Core\Document\Document;
use CrispReel\Core\Document\Item;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Motion\ClipTable;
use CrispReel\Core\Motion\Model\MotionRecipe;
use CrispReel\Core\Motion\Model\MotionSampler;

/**
 * Beats to segments: motions solved or fetched for the figure, in-points and speeds settled, and each beat carried on
 * from where the one before it left the planted feet.
 */
final class LaneCompiler
{
    public function __construct(private readonly Document $document, private readonly AssetSource $assets)
    {
    }

    public function lane(Item $item, Figure $figure): Lane
    {
        $beats = array_values(array_filter($this->document->beats, static fn (Beat $b): bool => $b->item === $item->id));
        usort($beats, static fn (Beat $a, Beat $b): int => [$a->start, $a->id] <=> [$b->start, $b->id]);
        $segments = [];
        foreach ($beats as $beat) {
            $segment = $this->segment($beat, $item, $figure);
            $this->carryOn($segments, $segment, $figure);
            $segments[] = $segment;
        }

        return new Lane($figure, $segments, $this->standing($figure));
    }

    private function segment(Beat $beat, Item $item, Figure $figure): LaneSegment
    {
        $asset = $this->document->assets[$beat->motion];
        [$table, $key] = $this->table($asset, $beat->settings, $item, $figure);
        $in = min($beat->sourceIn, $table->seconds());
        $out = min($beat->sourceOut ?? $table->seconds(), $table->seconds());
        if ($out - $in < 1e-4) {
            throw UnableToCompile::emptyMotion($asset->name);
        }

        return new LaneSegment(
            $beat->id, $table, $key, (float) $beat->start, $in, $out, $this->document->rate->seconds(1.0) * $beat->speed,
            $beat->loops, $beat->root === 'spot', $beat->join, $beat->joinFrames, $figure->hips,
        );
    }

    /**
     * @param  array<string, mixed>  $settings
     * @return array{ClipTable, string}
     */
    private function table(AssetRef $asset, array $settings, Item $item, Figure $figure): array
    {
        $digest = $this->assets->digest($asset);
        if (isset($digest['recipe'])) {
            if (! $figure->isHuman()) {
                throw UnableToCompile::noFigure($asset->name, $item->name);
            }

            /** @var array{model: string, settings?: array<string, mixed>} $r */
            $r = $digest['recipe'];
            $recipe = (new MotionRecipe($r['model'], $r['settings'] ?? []))->with($settings);

            return $this->kept($recipe, $figure);
        }

        return ImportedMotion::table($this->assets, $asset, $digest, $figure);
    }

    /** @return array{ClipTable, string} */
    private function kept(MotionRecipe $recipe, Figure $figure): array
    {
        $key = hash('sha256', json_encode([MotionSampler::VERSION, $recipe->toArray(), $figure->blob], JSON_THROW_ON_ERROR));
        $bytes = $this->assets->solved($key);
        if ($bytes !== null) {
            return [ClipTable::fromBytes($bytes), $key];
        }
        $table = MotionSampler::table($figure->body(), $recipe, $figure->morphs);
        $bytes = $table->toBytes();
        $this->assets->keep($key, $bytes);

        // Read back, so that the first answer and all later ones are the same bytes.
        return [ClipTable::fromBytes($bytes), $key];
    }

    /** @return list<float> */
    private function standing(Figure $figure): array
    {
        if (! $figure->isHuman()) {
            $rest = $figure->skeleton->restTranslation($figure->hips);

            return [...$rest, ...$figure->skeleton->rotations, ...array_fill(0, count($figure->morphs), 0.0), 0.0, 0.0, 0.0];
        }

        return $this->kept(new MotionRecipe('idle', ['seed' => 1, 'seconds' => 8]), $figure)[0]->at(0.0);
    }

    /**
     * The planar move that makes the new beat begin where the last one stands: the feet that are planted in both poses
     * coincide in place and heading; without a common planted foot, the hips do.
     *
     * @param  list<LaneSegment>  $before
     */
    private function carryOn(array $before, LaneSegment $segment, Figure $figure): void
    {
        $to = $this->footing($segment->row($segment->start), $figure);
        if ($before === [] || $segment->join === 'cut') {
            // The motion starts on the mark: its own root at the performer's place.
            $row = $segment->table->at($segment->in);
            $o = $segment->table->width - 3;
            $segment->move = LaneSegment::undo([$row[$o], $row[$o + 1], $row[$o + 2]]);
            if ($before === []) {
                return;
            }
        }
        $last = $before[count($before) - 1];
        $from = $this->footing($last->row(min($segment->start, $last->end)), $figure);
        $segment->move = LaneSegment::after($this->anchor($from, $to), LaneSegment::undo($this->anchor($to, $from)));
    }

    /**
     * Planted feet and hips of a pose.
     *
     * @param  list<float>  $row
     * @return array{hips: array{float, float, float}, feet: array<string, array{float, float, float}>} x, z, heading
     */
    private function footing(array $row, Figure $figure): array
    {
        $rotations = array_slice($row, 3, 4 * $figure->skeleton->count());
        [$p, $q] = $figure->skeleton->world($rotations, [$row[0], $row[1], $row[2]], $figure->hips);
        $at = static function (int $j) use ($p, $q): array {
            $turn = [$q[4 * $j], $q[4 * $j + 1], $q[4 * $j + 2], $q[4 * $j + 3]];

            return [$p[3 * $j], $p[3 * $j + 2], Q4::heading($turn)];
        };
        $feet = [];
        foreach (['L', 'R'] as $s) {
            $j = $figure->skeleton->roles['foot'.$s] ?? null;
            $rest = $figure->rest('foot'.$s);
            if ($j !== null && $rest !== null && $p[3 * $j + 1] < $rest[1] + 0.04) {
                $feet[$s] = $at($j);
            }
        }

        return ['hips' => $at($figure->hips), 'feet' => $feet];
    }

    /**
     * @param  array{hips: array{float, float, float}, feet: array<string, array{float, float, float}>}  $of
     * @param  array{hips: array{float, float, float}, feet: array<string, array{float, float, float}>}  $other
     * @return array{float, float, float}
     */
    private function anchor(array $of, array $other): array
    {
        $both = array_intersect_key($of['feet'], $other['feet']);
        if (count($both) === 2) {
            [$l, $r] = [$both['L'], $both['R']];
            // Across the feet from right to left is the stance's side axis.
            $turn = atan2(sin($l[2]) + sin($r[2]), cos($l[2]) + cos($r[2]));

            return [($l[0] + $r[0]) / 2, ($l[1] + $r[1]) / 2, $turn];
        }

        return $both === [] ? $of['hips'] : array_values($both)[0];
    }
}
