<?php

declare(strict_types=1);

namespace App\Edits\Commands;

use App\Edits\EditCommand;
use App\Edits\EditContext;
use App\Edits\RowColumns;
use App\Edits\RowRules;
use App\Exceptions\UserError;
use CrispReel\Core\Document\Beat;
use CrispReel\Core\Document\Line;
use CrispReel\Core\Speech\Script;
use Illuminate\Support\Facades\DB;
use stdClass;

/**
 * Lets a performer say something: after the line that ends last, or where it is said. Who does nothing meanwhile talks with the
 * hands too ("gestures": false leaves that out). Put after a line that others wait for, it comes between. "recording" is a sound
 * that it is heard as; then its words may be told later.
 */
final class LineAdd implements EditCommand
{
    public function name(): string
    {
        return 'line.add';
    }

    public function rules(): array
    {
        return ['gestures' => 'sometimes|boolean', 'recording' => 'sometimes', 'recordingIn' => 'sometimes|numeric|min:0']
            + RowRules::of(Line::class, ['item'], ['reading', 'beat']);
    }

    public function apply(EditContext $scene, array $in): string
    {
        $item = $scene->find('items', $in['item']);
        if ($item->kind !== 'performer') {
            throw new UserError('line.not-performer', "\"{$item->name}\" is not a performer.", 'Give the line to somebody who can speak.');
        }
        $in['text'] = (string) ($in['text'] ?? '');
        if (trim(Script::heard($in['text'])) === '' && ! isset($in['recording'])) {
            throw new UserError('line.empty', 'There is nothing in this line that could be said.', 'Type what is to be heard.');
        }
        if (! isset($in['after']) && ! isset($in['start'])) {
            $in['after'] = $this->last($scene);
        }
        $columns = RowColumns::fresh(Line::class, array_filter($in, static fn (mixed $v): bool => $v !== null), $scene);
        $id = $scene->rows->insert('lines', $columns);
        $scene->remember($in['as'] ?? null, $id);
        if (isset($in['recording'])) {
            TakeAdd::of($scene, $scene->find('lines', $id), ['asset' => $in['recording'], 'sourceIn' => $in['recordingIn'] ?? null]);
        }
        // Whoever waited for that line waits for this one now.
        foreach (
            isset($in['after'])
                ? DB::table('lines')->where('after_id', $columns['after_id'] ?? 0)->where('id', '!=', $id)->pluck('id')->all()
                : [] as $next
        ) {
            $scene->rows->update('lines', (int) $next, ['after_id' => $id]);
        }
        if ($in['gestures'] ?? true) {
            $this->gestures($scene, $id, $item, (string) ($in['delivery'] ?? 'plain'));
        }

        return $in['text'] === ''
            ? "{$item->name}: a recording"
            : "{$item->name} says \"".mb_strimwidth(Script::heard($in['text']), 0, 24, '…').'"';
    }

    /** The line that ends last; null: it is the first one. */
    private function last(EditContext $scene): ?string
    {
        if (! DB::table('lines')->where('scene_id', $scene->scene->id)->exists()) {
            return null;
        }
        $last = null;
        foreach ($scene->compiled()->utterances as $u) {
            $last = $last === null || $u->end >= $last->end ? $u : $last;
        }

        return $last?->line->id;
    }

    private function gestures(EditContext $scene, int $line, stdClass $item, string $delivery): void
    {
        $compiled = $scene->compiled();
        $u = array_values(array_filter($compiled->utterances, static fn ($u): bool => $u->line->id === "d{$line}"))[0] ?? null;
        $lane = $compiled->lanes["i{$item->id}"] ?? null;
        if ($u === null || $lane === null || ! $lane->figure->isHuman()) {
            return;
        }
        foreach ($lane->segments as $s) {
            // A stance that goes on by itself is no action.
            if ($s->start < $u->to && $s->end > $u->from && ! $s->from->play->keepLooping) {
                return;
            }
        }
        $motion = $scene->asset(in_array($delivery, ['calm', 'sad', 'tired', 'whispered'], true) ? 'talk-calm' : 'talk');
        $columns = ['asset_id' => $motion->id]
            + RowColumns::fresh(Beat::class, ['item' => (int) $item->id, 'start' => max(0, (int) round($u->start))], $scene);
        $scene->rows->update('lines', $line, ['beat_id' => $scene->rows->insert('beats', $columns)]);
    }
}
