<?php

declare(strict_types=1);

namespace App\Edits\Commands;

use App\Edits\EditCommand;
use App\Edits\EditContext;
use CrispReel\Core\Staging\Ride;

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
        $thing = $scene->find('items', $in['on']);
        $to = is_numeric($in['to'] ?? null) ? (int) $in['to'] : null;
        $scene->carryOut(Ride::of(
            $scene->document(), $scene->assets, "i{$who->id}", "i{$thing->id}", (int) ($in['from'] ?? 0), $to,
        ));

        return "{$who->name} rides {$thing->name}";
    }
}
