<?php

declare(strict_types=1);

namespace App\Edits\Commands;

use App\Edits\EditCommand;
use App\Edits\EditContext;
use CrispReel\Core\Staging\Ride;

/** Lets a performer get off what it rides, at a frame or as soon as that stands. */
final class ItemAlight implements EditCommand
{
    public function name(): string
    {
        return 'item.alight';
    }

    public function rules(): array
    {
        return ['item' => 'required', 'at' => 'required|integer|between:0,1000000'];
    }

    public function apply(EditContext $scene, array $in): string
    {
        $who = $scene->find('items', $in['item']);
        $scene->carryOut(Ride::off($scene->compiled(), $scene->assets, "i{$who->id}", (int) $in['at']));

        return "{$who->name} gets off";
    }
}
