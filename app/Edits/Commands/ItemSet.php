<?php

declare(strict_types=1);

namespace App\Edits\Commands;

use App\Edits\EditCommand;
use App\Edits\EditContext;
use App\Exceptions\UserError;
use Illuminate\Support\Facades\DB;

/** Name or tape colour of an item. */
final class ItemSet implements EditCommand
{
    public function name(): string
    {
        return 'item.set';
    }

    public function rules(): array
    {
        return ['item' => 'required', 'name' => 'sometimes|string|min:1|max:80', 'tape' => 'sometimes|integer|between:0,7'];
    }

    public function apply(EditContext $scene, array $in): string
    {
        $item = $scene->find('items', $in['item']);
        if (isset($in['name']) && DB::table('items')->where('scene_id', $scene->scene->id)->where('name', $in['name'])->where('id', '!=', $item->id)->exists()) {
            throw new UserError('item.name-taken', "Something else in this scene is called \"{$in['name']}\".", 'Choose another name.');
        }
        $scene->rows->update('items', (int) $item->id, array_intersect_key($in, ['name' => 1, 'tape' => 1]));

        return isset($in['name']) ? "Rename {$item->name}" : "Colour {$item->name}";
    }
}
