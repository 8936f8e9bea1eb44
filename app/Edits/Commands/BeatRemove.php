<?php

declare(strict_types=1);

namespace App\Edits\Commands;

use App\Edits\EditCommand;
use App\Edits\EditContext;

/** Takes a beat off its lane. */
final class BeatRemove implements EditCommand
{
    public function name(): string
    {
        return 'beat.remove';
    }

    public function rules(): array
    {
        return ['beat' => 'required'];
    }

    public function apply(EditContext $scene, array $in): string
    {
        $scene->rows->delete('beats', (int) $scene->find('beats', $in['beat'])->id);

        return 'Remove a beat';
    }
}
