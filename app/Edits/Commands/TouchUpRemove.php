<?php

declare(strict_types=1);

namespace App\Edits\Commands;

use App\Edits\EditCommand;
use App\Edits\EditContext;

final class TouchUpRemove implements EditCommand
{
    public function name(): string
    {
        return 'touchUp.remove';
    }

    public function rules(): array
    {
        return ['touchUp' => 'required'];
    }

    public function apply(EditContext $scene, array $in): string
    {
        $scene->rows->delete('touch_ups', (int) $scene->find('touch_ups', $in['touchUp'])->id);

        return 'Take a touch-up away';
    }
}
