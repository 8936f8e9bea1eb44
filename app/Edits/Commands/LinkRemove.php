<?php

declare(strict_types=1);

namespace App\Edits\Commands;

use App\Edits\EditCommand;
use App\Edits\EditContext;

/** Takes a carry away. */
final class LinkRemove implements EditCommand
{
    public function name(): string
    {
        return 'link.remove';
    }

    public function rules(): array
    {
        return ['link' => 'required'];
    }

    public function apply(EditContext $scene, array $in): string
    {
        $scene->rows->delete('links', (int) $scene->find('links', $in['link'])->id);

        return 'Remove a carry';
    }
}
