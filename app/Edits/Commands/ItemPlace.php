<?php

declare(strict_types=1);

namespace App\Edits\Commands;

use App\Edits\EditCommand;
use App\Edits\EditContext;
use App\Exceptions\UserError;

/** Moves, turns or grows an item. With "land" it is put on what is below it. */
final class ItemPlace implements EditCommand
{
    public function name(): string
    {
        return 'item.place';
    }

    public function rules(): array
    {
        return [
            'item' => 'required', 'position' => 'sometimes|array|size:3', 'position.*' => 'numeric|between:-10000,10000',
            'x' => 'sometimes|numeric|between:-10000,10000', 'y' => 'sometimes|numeric|between:-10000,10000',
            'z' => 'sometimes|numeric|between:-10000,10000',
            'headingDeg' => 'sometimes|numeric|between:-36000,36000', 'scale' => 'sometimes|numeric|between:0.001,1000',
            'land' => 'sometimes|boolean',
        ];
    }

    public function apply(EditContext $scene, array $in): string
    {
        $item = $scene->find('items', $in['item']);
        if ($item->locked) {
            throw new UserError('item.locked', "\"{$item->name}\" is locked in its place.", 'Unlock it on its card first.');
        }
        $values = [];
        if (is_array($in['position'] ?? null)) {
            [$values['x'], $values['y'], $values['z']] = array_map(floatval(...), $in['position']);
        }
        // One coordinate alone leaves the others to who else moves them.
        foreach (['x', 'y', 'z'] as $axis) {
            if (isset($in[$axis])) {
                $values[$axis] = (float) $in[$axis];
            }
        }
        if (($in['land'] ?? false) === true) {
            $x = (float) ($values['x'] ?? $item->x);
            $z = (float) ($values['z'] ?? $item->z);
            $rise = $scene->rise((int) $item->asset_id, (string) $item->kind) * (float) ($in['scale'] ?? $item->scale);
            // Who is moved stays on his storey; who is only to come down comes down to its floor.
            $isMoved = isset($values['x']) || isset($values['z']);
            $values['y'] = $scene->stage()->stand($x, $z, "i{$item->id}", $isMoved ? (float) $item->y - $rise : null) + $rise;
        }
        if (isset($in['headingDeg'])) {
            $values['heading_deg'] = fmod((float) $in['headingDeg'], 360.0);
        }
        if (isset($in['scale'])) {
            $values['scale'] = (float) $in['scale'];
        }
        if ($values !== []) {
            $scene->rows->update('items', (int) $item->id, $values);
        }

        return (array_intersect_key($values, ['x' => 1, 'y' => 1, 'z' => 1]) !== [] ? 'Move' : (isset($values['scale']) ? 'Grow' : 'Turn'))
            ." {$item->name}";
    }
}
