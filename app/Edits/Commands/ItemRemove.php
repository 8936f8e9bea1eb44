<?php

declare(strict_types=1);

namespace App\Edits\Commands;

use App\Edits\EditCommand;
use App\Edits\EditContext;
use CrispReel\Core\Document\Item;
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
        $left = CameraLoosen::leave($scene, (int) $item->id);
        foreach (DB::table('lines')->where('item_id', $item->id)->orderBy('id')->pluck('id')->all() as $line) {
            // Who waited for what is not said any more waits for what came before.
            (new LineRemove)->apply($scene, ['line' => (int) $line]);
        }
        $scene->remove(Item::class, (int) $item->id);
        $this->renameWhoIsLeft($scene, $item->name);

        return "Remove {$item->name}".($left === [] ? '' : '; camera '.implode(', ', $left).' stays where it stood');
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
