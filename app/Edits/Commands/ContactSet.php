<?php

declare(strict_types=1);

namespace App\Edits\Commands;

use App\Edits\EditCommand;
use App\Edits\EditContext;

/** Changes when, where or how a part of a performer is held. */
final class ContactSet implements EditCommand
{
    public function name(): string
    {
        return 'contact.set';
    }

    public function rules(): array
    {
        return ['contact' => 'required'] + ContactAdd::RULES;
    }

    public function apply(EditContext $scene, array $in): string
    {
        $row = $scene->find('contacts', $in['contact']);
        $values = ContactAdd::columns($scene, $in);
        ContactAdd::check(
            (int) ($values['from_frame'] ?? $row->from_frame),
            array_key_exists('to_frame', $values) ? $values['to_frame'] : $row->to_frame,
        );
        if ($values !== []) {
            $scene->rows->update('contacts', (int) $row->id, $values);
        }

        return 'Change a contact';
    }
}
