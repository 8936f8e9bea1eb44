<?php

declare(strict_types=1);

namespace App\Edits\Commands;

use App\Edits\EditCommand;
use App\Edits\EditContext;
use CrispReel\Core\Staging\Ride;

/**
 * Puts a performer on a thing that has places for a rider: from the first frame on, or walks up, gets on, rides along, gets off.
 */
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
            'to' => 'sometimes|nullable|integer|between:1,1000000', 'getOn' => 'sometimes|boolean',
        ];
    }

    public function apply(EditContext $scene, array $in): string
    {
        $who = $scene->find('items', $in['item']);
        $thing = $scene->find('items', $in['on']);
        $to = is_numeric($in['to'] ?? null) ? (int) $in['to'] : null;
        $from = (int) ($in['from'] ?? 0);
        $getsOn = (bool) ($in['getOn'] ?? $from > 0);
        $scene->carryOut(Ride::of($scene->compiled(), $scene->assets, "i{$who->id}", "i{$thing->id}", $from, $to, $getsOn));

        return $getsOn ? "{$who->name} gets on {$thing->name}" : "{$who->name} rides {$thing->name}";
    }
}
