<?php

declare(strict_types=1);

namespace App\Edits\Commands;

use App\Edits\EditCommand;
use App\Edits\EditContext;

final class ContactRemove implements EditCommand
{
    public function name(): string
    {
        return 'contact.remove';
    }

    public function rules(): array
    {
        return ['contact' => 'required'];
    }

    public function apply(EditContext $scene, array $in): string
    {
        $scene->rows->delete('contacts', (int) $scene->find('contacts', $in['contact'])->id);

        return 'Let a contact go';
    }
}
