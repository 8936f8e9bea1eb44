<?php

declare(strict_types=1);

namespace App\Edits\Commands;

use App\Edits\EditCommand;
use App\Edits\EditContext;
use App\Edits\RowColumns;
use App\Edits\RowRules;
use App\Exceptions\UserError;
use CrispReel\Core\Document\Contact;

/** Holds a hand, a foot, the hips, the head or the look of a performer to a place from a frame up to a frame. */
final class ContactAdd implements EditCommand
{
    public function name(): string
    {
        return 'contact.add';
    }

    public function rules(): array
    {
        return RowRules::of(Contact::class, ['item', 'effector', 'from']);
    }

    public function apply(EditContext $scene, array $in): string
    {
        $item = $scene->find('items', $in['item']);
        if ($item->kind !== 'performer') {
            throw new UserError('contact.not-performer', "\"{$item->name}\" is not a performer.", 'Choose a performer.');
        }
        if (! isset($in['target']) && ! isset($in['offset'])) {
            throw new UserError(
                'contact.where',
                'A contact needs a place: a thing, or a point of the scene.',
                'Give "target", or "offset" as x, y, z.',
            );
        }
        $scene->remember($in['as'] ?? null, $scene->rows->insert('contacts', RowColumns::fresh(Contact::class, $in, $scene)));

        return "Contact of {$item->name}";
    }
}
