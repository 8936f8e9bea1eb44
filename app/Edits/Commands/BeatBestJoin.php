<?php

declare(strict_types=1);

namespace App\Edits\Commands;

use App\Edits\EditCommand;
use App\Edits\EditContext;
use App\Exceptions\UserError;
use CrispReel\Core\Compile\Lane;
use CrispReel\Core\Compile\LaneSegment;
use CrispReel\Core\Motion\JoinFinder;

/** Trims a beat and the one before it to the moments at which their poses fit best, and closes the gap. */
final class BeatBestJoin implements EditCommand
{
    /** Seconds before the end of the one and after the start of the other that may be given up. */
    private const GIVE = 1.5;

    public function name(): string
    {
        return 'beat.bestJoin';
    }

    public function rules(): array
    {
        return ['beat' => 'required'];
    }

    public function apply(EditContext $scene, array $in): string
    {
        $beat = $scene->find('beats', $in['beat']);
        $lane = $scene->compiled()->lanes["i{$beat->item_id}"];
        [$before, $segment] = self::pair($lane, "b{$beat->id}");
        $found = self::suggest($lane, $before, $segment);
        $rate = $scene->compiled()->document->rate;
        $left = $before->start + ($found['leave'] - $before->in) / $rate->seconds(1.0) / $before->from->speed;
        $scene->rows->update('beats', (int) ltrim($before->beat, 'b'), ['source_out' => $found['leave']]);
        $scene->rows->update('beats', (int) $beat->id, ['source_in' => $found['enter'], 'start' => (int) round($left)]);

        return sprintf('Join where poses fit (%.0f %% nearer)', 100 * max(0.0, $found['better']));
    }

    /** @return array{LaneSegment, LaneSegment} */
    public static function pair(Lane $lane, string $beat): array
    {
        foreach ($lane->segments as $k => $s) {
            if ($s->beat === $beat && $k > 0) {
                $before = $lane->segments[$k - 1];
                if ($before->isBetween()) {
                    throw new UserError(
                        'join.between',
                        'Between the two the performer rises, sits down or comes nearer.',
                        'Set "Before" to "as it is" first, or untie the pair.',
                    );
                }
                if (
                    $before->from->loops > 1 || $before->from->play->toArray() !== [] || $s->from->path !== null
                        || $before->from->path !== null || $s->from->play->toArray() !== []
                ) {
                    throw new UserError(
                        'join.plain',
                        'The best joint is found between beats that play their motions plainly once.',
                        'Take loops, paths and play settings of both away first.',
                    );
                }

                return [$before, $s];
            }
        }
        throw new UserError('join.first', 'No beat stands before this one.', 'Choose a beat that follows another.');
    }

    /** @return array{leave: float, enter: float, distance: float, plain: float, better: float} */
    public static function suggest(Lane $lane, LaneSegment $before, LaneSegment $segment): array
    {
        $end = $before->from->sourceOut ?? $before->table->seconds();
        $last = $segment->from->sourceOut ?? $segment->table->seconds();

        return (new JoinFinder($lane->figure))->best(
            $before->table,
            [max($before->in + 0.3, $end - self::GIVE), $end],
            $segment->table,
            [$segment->in, min($last - 0.3, $segment->in + self::GIVE)],
        );
    }
}
