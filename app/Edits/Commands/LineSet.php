<?php

declare(strict_types=1);

namespace App\Edits\Commands;

use App\Edits\EditCommand;
use App\Edits\EditContext;
use App\Edits\RowColumns;
use App\Edits\RowRules;
use App\Exceptions\UserError;
use CrispReel\Core\Document\Line;
use CrispReel\Core\Speech\Script;
use Illuminate\Support\Facades\DB;
use stdClass;

/** Changes what is said, by whom, when and how. A start by itself makes it wait for no other line. */
final class LineSet implements EditCommand
{
    public function name(): string
    {
        return 'line.set';
    }

    public function rules(): array
    {
        return ['line' => 'required'] + RowRules::of(Line::class, [], ['reading', 'beat']);
    }

    public function apply(EditContext $scene, array $in): string
    {
        $row = $scene->find('lines', $in['line']);
        if (isset($in['item']) && $scene->find('items', $in['item'])->kind !== 'performer') {
            throw new UserError('line.not-performer', 'Only a performer can speak.', 'Give the line to somebody else.');
        }
        if (
            isset($in['text']) && trim(Script::heard((string) $in['text'])) === ''
            && DB::table('takes')->where('line_id', $row->id)->doesntExist()
        ) {
            throw new UserError('line.empty', 'There is nothing in this line that could be said.', 'Type something, or take the line out.');
        }
        if (isset($in['start']) && ! array_key_exists('after', $in)) {
            $in['after'] = null;
        }
        if (isset($in['after'])) {
            $this->refuseCircle($scene, $row, $scene->find('lines', $in['after']));
        }
        $values = RowColumns::changed(Line::class, $in, $scene, $row);
        if (isset($values['item_id']) && (int) $values['item_id'] !== (int) $row->item_id && $row->beat_id !== null) {
            // Hands that went with it are another's.
            $scene->rows->update('beats', (int) $row->beat_id, ['item_id' => $values['item_id']]);
        }
        if ($values !== []) {
            $scene->rows->update('lines', (int) $row->id, $values);
        }

        return isset($in['text']) ? 'Change a line' : (isset($in['start']) || isset($in['pause']) ? 'Move a line' : 'Set a line');
    }

    private function refuseCircle(EditContext $scene, stdClass $row, stdClass $after): void
    {
        $seen = [];
        for ($at = $after; $at !== null && ! isset($seen[(int) $at->id]); $at = $at->after_id === null
            ? null
            : DB::table('lines')->where('id', $at->after_id)->first()) {
            $seen[(int) $at->id] = true;
        }
        if (isset($seen[(int) $row->id])) {
            throw new UserError(
                'line.circle',
                'That line waits for this one already.',
                'Let it wait for another one, or give it a start of its own; nothing was changed.',
            );
        }
    }
}
