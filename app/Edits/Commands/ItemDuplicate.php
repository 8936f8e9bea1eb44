<?php

declare(strict_types=1);

namespace App\Edits\Commands;

use App\Edits\EditCommand;
use App\Edits\EditContext;
use Illuminate\Support\Facades\DB;

/** The same thing once more, beside the first, with its beats and touch-ups. */
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
        [$x, $z] = $scene->clearOf(
            (float) $item->x + 0.8,
            (float) $item->z,
            $item->kind === 'performer' ? 0.35 : $scene->radius((int) $item->asset_id),
        );
        $values = [
            'x' => $x,
            'z' => $z,
            'y' => $item->kind === 'set' ? $item->y : $scene->ground($x, $z, null, (float) $item->y + 1.0)
                + $scene->rise((int) $item->asset_id, (string) $item->kind) * (float) $item->scale,
            'name' => $scene->freeName($item->name),
        ] + (array) $item;
        unset($values['id']);
        $id = $scene->rows->insert('items', $values);
        foreach (DB::table('beats')->where('item_id', $item->id)->orderBy('id')->get() as $beat) {
            $row = ['item_id' => $id] + (array) $beat;
            unset($row['id']);
            $row['path'] = self::moved($beat->path, $x - (float) $item->x, $z - (float) $item->z);
            $scene->rows->insert('beats', $row);
        }
        foreach (DB::table('touch_ups')->where('item_id', $item->id)->orderBy('id')->get() as $touchUp) {
            $row = ['item_id' => $id] + (array) $touchUp;
            unset($row['id']);
            $scene->rows->insert('touch_ups', $row);
        }
        $scene->remember($in['as'] ?? null, $id);

        return "Duplicate {$item->name}";
    }

    /** A path as far from the copy as the first one's is from it. */
    private static function moved(?string $path, float $dx, float $dz): ?string
    {
        $p = $path === null ? null : json_decode($path, true);
        if (! is_array($p) || ! is_array($p['points'] ?? null)) {
            return $path;
        }
        $p['points'] = array_map(static fn (array $q): array => [$q[0] + $dx, $q[1] + $dz], $p['points']);

        return (string) json_encode($p);
    }
}
