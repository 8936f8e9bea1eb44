<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile;

use CrispReel\Core\Document\Beat;
use CrispReel\Core\Document\Command;
use CrispReel\Core\Document\Document;
use CrispReel\Core\Document\Finding;
use CrispReel\Core\Document\Item;
use CrispReel\Core\Document\Measured;
use CrispReel\Core\Document\Mend;
use CrispReel\Core\Document\Severity;
use CrispReel\Core\Meeting\Meetings;
use CrispReel\Core\Motion\Model\MotionRecipe;
use CrispReel\Core\Motion\Repeat;

/** What is said of a performer's lane. */
final class LaneNotes
{
    public static function leadsNowhere(Beat $beat, Item $item): Finding
    {
        return new Finding(
            'path.short', Severity::Look, "The path of {$item->name} leads nowhere.",
            remedy: 'Draw a place that is farther away.', about: [$item->id, $beat->id], frames: [$beat->start, $beat->start],
        );
    }

    /**
     * What takes two is done with somebody, what is got on is there, or it is said to be done into the air.
     *
     * @return list<Finding>
     */
    public static function alone(Document $document, Beat $beat, Item $item, string $name, ?MotionRecipe $recipe): array
    {
        if ($recipe !== null && $recipe->model === 'mount' && ! isset($document->items[$beat->play->on])) {
            return [new Finding(
                'ride.nothing', Severity::Look, sprintf('%s does "%s" with nothing to ride.', $item->name, $name),
                'It is done into the air.',
                'Bring a bicycle or a boat near and click it again.', [$item->id, $beat->id], [$beat->start, $beat->start],
            )];
        }
        $half = $recipe !== null && $recipe->model === 'act' && Meetings::half($recipe)[0] !== '';
        $two = $half || Leading::isLed($recipe) || Bearing::isBorne($recipe)
            || in_array($recipe?->text('score'), ['throwToA', 'throwToB'], true);
        if (! $two || PairTables::partner($document, $beat) !== null) {
            return [];
        }

        return [new Finding(
            'pair.alone', Severity::Look, sprintf('%s does "%s" with nobody.', $item->name, $name), 'It is done into the air.',
            'Bring somebody within 5 m and click it again, or tie it to another\'s beat under With.',
            [$item->id, $beat->id], [$beat->start, $beat->start],
        )];
    }

    /** Where a recording goes round is said; what cannot go round without a jump as well. */
    public static function round(Beat $beat, Item $item, string $name, float $from, float $to, float $off): Finding
    {
        $fits = $off <= Repeat::FITS;

        return new Finding(
            $fits ? 'repeat.from' : 'repeat.none', $fits ? Severity::Fyi : Severity::Look,
            $fits
                ? sprintf('"%s" goes round from second %.2f to %.2f, where it fits best (%.0f cm off).', $name, $from, $to, 100 * $off)
                : sprintf('"%s" cannot go round: the best place to begin again is %.0f cm off.', $name, 100 * $off),
            $fits ? '' : 'The body jumps at each round.',
            $fits ? 'Trim it, and it goes round where it is trimmed.' : 'Play it once, or trim it to a part that ends as it begins.',
            [$item->id, $beat->id], [$beat->start, $beat->start], [new Measured('off', round($off, 3), 'm', Repeat::FITS)],
            $fits ? [] : [new Mend(
                'Play it once', [Command::of('beat.set', beat: $beat->id, loops: 1, play: ['fill' => null, 'keepLooping' => null])],
            )],
        );
    }

    /**
     * What goes on under the beat that follows is not seen: said, unless it goes on by its nature or only while the two are joined.
     *
     * @param  list<LaneSegment>  $segments
     * @return list<Finding>
     */
    public static function covered(Document $document, array $segments, Item $item): array
    {
        $out = [];
        foreach ($segments as $k => $s) {
            $next = $segments[$k + 1] ?? null;
            // What was put in between covers the end of what it leads away from.
            if ($next === null || $s->from->play->keepLooping || $next->isBetween()
                || $s->end <= $next->start + max(1, $next->joinFrames)) {
                continue;
            }
            $name = $document->assets[$s->from->motion]->name;
            $hidden = (int) ceil($s->end - $next->start);
            [$from, $to] = [(int) $next->start, (int) ceil($s->end)];
            $out[] = new Finding(
                'beat.covered', Severity::Look,
                sprintf('%d frames of "%s" are not seen: what follows begins before it ends.', $hidden, $name),
                remedy: sprintf('Bring its end to frame %d, or what follows to frame %d.', $from, $to),
                about: [$item->id, $s->beat], frames: [$from, $to], figures: [new Measured('covered', $hidden, 'frames', 0.0)],
                mends: [new Mend('End it there', [Command::of('beat.trim', beat: $s->beat, edge: 'out', frame: $from)])],
            );
        }

        return $out;
    }

    /**
     * A walk that does not stop at its end is held in the middle of a step where nothing follows at once.
     *
     * @param  list<LaneSegment>  $segments
     * @return list<Finding>
     */
    public static function held(array $segments, Item $item): array
    {
        $out = [];
        foreach ($segments as $k => $s) {
            $next = $segments[$k + 1] ?? null;
            if ($s->timing->beyond <= 0.0 || ($next !== null && $next->start <= $s->end + CarryingOn::AT_ONCE)) {
                continue;
            }
            $end = (int) ceil($s->end);
            $bring = $next === null || $next->isBetween() ? [] : [
                new Mend('Bring what follows there', [Command::of('beat.set', beat: $next->beat, start: $end)]),
            ];
            $out[] = new Finding(
                'path.held', Severity::Harms, "{$item->name} is held in the middle of a step: nothing follows when the walk is over.",
                remedy: sprintf('Let what follows begin at frame %d, or let the walk stop.', $end), about: [$item->id, $s->beat],
                frames: [$end, $end],
                mends: [...$bring, new Mend('Let it stop', [Command::of(
                    'beat.set', beat: $s->beat, path: array_diff_key((array) $s->from->path?->toArray(), ['goesOn' => 0]),
                )])],
            );
        }

        return $out;
    }
}
