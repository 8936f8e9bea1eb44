<?php

declare(strict_types=1);

namespace App\Edits\Commands;

use App\Edits\EditCommand;
use App\Edits\EditContext;
use CrispReel\Core\Staging\Wear;

/** Puts a cloth on a performer: cut to the figure's height, fastened where it is worn. */
final class ItemWear implements EditCommand
{
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
        $thing = $scene->find('items', $in['cloth']);
        $to = is_numeric($in['to'] ?? null) ? (int) $in['to'] : null;
        $scene->carryOut(Wear::of(
            $scene->document(), $scene->assets, "i{$who->id}", "i{$thing->id}", (int) ($in['from'] ?? 0), $to,
        ));

        return "{$who->name} wears {$thing->name}";
    }
}
