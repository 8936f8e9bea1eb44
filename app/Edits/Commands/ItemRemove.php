<?php

declare(strict_types=1);

namespace App\Edits\Commands;

use App\Edits\EditCommand;
use App\Edits\EditContext;
use Illuminate\Support\Facades\DB;

/** Takes an item out of the scene, with its beats, carries, touch-ups and contacts. */
final class ItemRemove implements EditCommand
{
    public function name(): string
    {
        return 'item.remove';
    }

    public function rules(): array
    {
        return ['item' => 'required'];
    }

    public function apply(EditContext $scene, array $in): string
    {
        $item = $scene->find('items', $in['item']);
        foreach (DB::table('links')->where('child_id', $item->id)->orWhere('parent_id', $item->id)->pluck('id') as $id) {
            $scene->rows->delete('links', (int) $id);
        }
        foreach (DB::table('beats')->where('item_id', $item->id)->pluck('id') as $id) {
            $scene->rows->delete('beats', (int) $id);
        }
        foreach (['touch_ups' => ['item_id'], 'contacts' => ['item_id', 'target_id']] as $table => $columns) {
            foreach ($columns as $column) {
                foreach (DB::table($table)->where($column, $item->id)->pluck('id') as $id) {
                    $scene->rows->delete($table, (int) $id);
                }
            }
        }
        // What was pushed stands where it is.
        foreach (DB::table('items')->where('scene_id', $scene->scene->id)->whereNotNull('route')->get() as $other) {
            $route = json_decode($other->route, true);
            if (is_array($route) && ($route['by'] ?? null) === "i{$item->id}") {
                $scene->rows->update('items', (int) $other->id, ['route' => null]);
            }
        }
        $scene->rows->delete('items', (int) $item->id);
        $this->renameWhoIsLeft($scene, $item->name);

        return "Remove {$item->name}";
    }

    /** "Oda 2" beside "Oda" is "Oda" again when she is the only one. */
    private function renameWhoIsLeft(EditContext $scene, string $name): void
    {
        $base = preg_replace('/ \d+$/', '', $name);
        $left = DB::table('items')->where('scene_id', $scene->scene->id)->pluck('name', 'id')
            ->filter(static fn (string $other): bool => preg_replace('/ \d+$/', '', $other) === $base);
        if ($left->count() === 1 && $left->first() !== $base) {
            $scene->rows->update('items', (int) $left->keys()->first(), ['name' => $base]);
        }
    }
}
