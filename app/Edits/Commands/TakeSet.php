<?php

declare(strict_types=1);

namespace App\Edits\Commands;

use App\Edits\EditCommand;
use App\Edits\EditContext;
use App\Edits\RowColumns;
use App\Edits\RowRules;
use CrispReel\Core\Document\Take;

/** Chooses a recording of a line, or none ("chosen": false lets the voice read it), and trims it; the file stays whole. */
final class TakeSet implements EditCommand
{
    public function name(): string
    {
        return 'take.set';
    }

    public function rules(): array
    {
        return ['take' => 'required'] + RowRules::of(Take::class, [], ['line', 'asset']);
    }

    public function apply(EditContext $scene, array $in): string
    {
        $row = $scene->find('takes', $in['take']);
        $values = RowColumns::changed(Take::class, array_diff_key($in, ['take' => 1]), $scene, $row);
        $now = array_replace((array) $row, $values);
        TakeAdd::refuseBackwards($now['source_in'], $now['source_out']);
        if (($values['chosen'] ?? false) && ! $row->chosen) {
            TakeAdd::unchoose($scene, (int) $row->line_id);
        }
        if ($values !== []) {
            $scene->rows->update('takes', (int) $row->id, $values);
        }

        return match (true) {
            ! isset($values['chosen']) => 'Trim a recording', (bool) $values['chosen'] => 'Choose a recording',
            default => 'Let the voice read a line',
        };
    }
}
