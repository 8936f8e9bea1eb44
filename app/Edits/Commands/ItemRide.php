<?php

declare(strict_types=1);

namespace App\Edits\Commands;

use App\Edits\EditCommand;
use App\Edits\EditContext;
use App\Exceptions\UserError;
use CrispReel\Core\Math\Placement;

/** Puts a performer on a thing that has places for a rider: goes with it, sits, holds on, and keeps the feet where they belong. */
final class ItemRide implements EditCommand
{
    public function name(): string
    {
        return 'item.ride';
    }

    public function rules(): array
    {
        return [
            'item' => 'required', 'on' => 'required', 'from' => 'sometimes|integer|between:0,1000000',
            'to' => 'sometimes|nullable|integer|between:1,1000000',
        ];
    }

    public function apply(EditContext $scene, array $in): string
    {
        $who = $scene->find('items', $in['item']);
        $on = $scene->find('items', $in['on']);
        if ($who->kind !== 'performer') {
            throw new UserError('ride.not-performer', "\"{$who->name}\" is not a performer.", 'Choose a performer.');
        }
        $digest = $scene->digest((int) $on->asset_id);
        $extras = is_array($digest['extras'] ?? null) ? $digest['extras'] : [];
        $rider = is_array($extras['vehicle'] ?? null) && is_array($extras['vehicle']['rider'] ?? null) ? $extras['vehicle']['rider'] : [];
        if ($rider === []) {
            throw new UserError(
                'ride.no-seat',
                "\"{$on->name}\" has no places for a rider.",
                'Choose a thing to ride on, or carry the performer and set contacts.',
            );
        }
        $seat = is_array($digest['mounts'] ?? null) && is_array($digest['mounts']['seat'] ?? null)
            ? $digest['mounts']['seat']['position']
            : [0.0, 0.0, 0.0];
        $place = Placement::standing([(float) $on->x, (float) $on->y, (float) $on->z], (float) $on->heading_deg, (float) $on->scale);
        $at = $place->point([(float) $seat[0], 0.0, (float) $seat[2]]);
        $scene->rows->update('items', (int) $who->id, [
            'x' => $at[0],
            'y' => $at[1],
            'z' => $at[2],
            'heading_deg' => (float) $on->heading_deg + (is_numeric($rider['headingDeg'] ?? null) ? (float) $rider['headingDeg'] : 0.0),
        ]);
        $from = (int) ($in['from'] ?? 0);
        (new LinkAdd)
            ->apply($scene, ['child' => $who->id, 'parent' => $on->id, 'from' => $from, 'to' => $in['to'] ?? null, 'keep' => 'place']);
        foreach ($rider as $effector => $where) {
            if (! is_array($where)) {
                continue;
            }
            (new ContactAdd)->apply($scene, [
                'item' => $who->id, 'effector' => $effector, 'target' => $on->id, 'mount' => $where['mount'] ?? '',
                'offset' => $where['offset'] ?? [0.0, 0.0, 0.0],
                'from' => $from, 'to' => $in['to'] ?? null, 'turn' => str_starts_with((string) $effector, 'hand') ? 'follow' : 'keep',
            ]);
        }

        return "{$who->name} rides {$on->name}";
    }
}
