<?php

declare(strict_types=1);

namespace App\Edits\Commands;

use App\Edits\EditCommand;
use App\Edits\EditContext;
use Illuminate\Support\Facades\DB;

/** The same thing once more, beside the first, with its beats. */
final class ItemDuplicate implements EditCommand
{
    public function name(): string
    {
        return 'item.duplicate';
    }

    public function rules(): array
    {
        return ['item' => 'required'];
    }

    public function apply(EditContext $scene, array $in): string
    {
        $item = $scene->find('items', $in['item']);
        [$x, $z] = $scene->clearOf((float) $item->x + 0.8, (float) $item->z, $item->kind === 'performer' ? 0.35 : $scene->radius((int) $item->asset_id));
        $values = ['x' => $x, 'z' => $z, 'y' => $item->kind === 'set' ? $item->y : $scene->ground($x, $z, null, (float) $item->y + 1.0), 'name' => $scene->freeName($item->name)] + (array) $item;
        unset($values['id']);
        $id = $scene->rows->insert('items', $values);
        foreach (DB::table('beats')->where('item_id', $item->id)->orderBy('id')->get() as $beat) {
            $row = ['item_id' => $id] + (array) $beat;
            unset($row['id']);
            $scene->rows->insert('beats', $row);
        }
        $scene->remember($in['as'] ?? null, $id);

        return "Duplicate {$item->name}";
    }
}
