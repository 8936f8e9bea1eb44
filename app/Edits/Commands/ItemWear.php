<?php

declare(strict_types=1);

namespace App\Edits\Commands;

use App\Edits\EditCommand;
use App\Edits\EditContext;
use App\Exceptions\UserError;

/** Puts a cloth on a performer: cut to the figure's height, fastened where it is worn. */
final class ItemWear implements EditCommand
{
    /** Metres of the figure that clothes are cut for. */
    private const CUT_FOR = 1.70;

    public function name(): string
    {
        return 'item.wear';
    }

    public function rules(): array
    {
        return [
            'item' => 'required', 'cloth' => 'required', 'from' => 'sometimes|integer|between:0,1000000',
            'to' => 'sometimes|nullable|integer|between:1,1000000',
        ];
    }

    public function apply(EditContext $scene, array $in): string
    {
        $who = $scene->find('items', $in['item']);
        $cloth = $scene->find('items', $in['cloth']);
        if ($who->kind !== 'performer') {
            throw new UserError('wear.not-performer', "\"{$who->name}\" is not a performer.", 'Choose a performer.');
        }
        $extras = $scene->digest((int) $cloth->asset_id)['extras'] ?? [];
        $worn = is_array($extras) && is_array($extras['cloth'] ?? null) ? $extras['cloth']['worn'] ?? null : null;
        $body = $scene->digest((int) $who->asset_id);
        $skeleton = is_array($body['skeleton'] ?? null) ? $body['skeleton'] : [];
        $joint = is_string($worn) && is_array($skeleton['roles'] ?? null) ? $skeleton['roles'][$worn] ?? null : null;
        if (! is_string($worn)) {
            throw new UserError(
                'wear.no-cloth',
                "\"{$cloth->name}\" cannot be put on.",
                'Choose a cloth that says where it is worn, such as a cloak.',
            );
        }
        if (! is_int($joint) || ! is_array($skeleton['names'] ?? null) || ! is_string($skeleton['names'][$joint] ?? null)) {
            throw new UserError(
                'wear.no-joint',
                "\"{$who->name}\" has no joint for the role {$worn}.",
                'Match the figure\'s joints first.',
            );
        }
        $height = is_array($body['figure'] ?? null) && is_numeric($body['figure']['height'] ?? null)
            ? (float) $body['figure']['height']
            : self::CUT_FOR;
        $scene->rows->update('items', (int) $cloth->id, [
            'x' => (float) $who->x, 'y' => (float) $who->y, 'z' => (float) $who->z, 'heading_deg' => (float) $who->heading_deg,
            'scale' => $height / self::CUT_FOR * (float) $who->scale,
        ]);
        (new LinkAdd)->apply($scene, [
            'child' => $cloth->id, 'parent' => $who->id, 'mount' => $skeleton['names'][$joint], 'from' => (int) ($in['from'] ?? 0),
            'to' => $in['to'] ?? null, 'keep' => 'grip',
        ]);

        return "{$who->name} wears {$cloth->name}";
    }
}
