<?php

declare(strict_types=1);

namespace App\Edits\Commands;

use App\Edits\EditCommand;
use App\Edits\EditContext;
use App\Edits\RowColumns;
use App\Scenes\SceneRows;
use App\Scenes\StoredRow;
use CrispReel\Core\Document\Beat;
use CrispReel\Core\Document\Fields\FieldList;
use CrispReel\Core\Document\Fields\Listed;
use CrispReel\Core\Document\Fields\Ref;
use CrispReel\Core\Document\Item;
use CrispReel\Core\Document\Line;
use CrispReel\Core\Staging\Shift;
use Illuminate\Support\Facades\DB;
use stdClass;

/**
 * The same thing once more, beside the first, with all that hangs on it: its beats, paths and touch-ups, its keys and route, what it
 * carries, and what it holds on to.
 */
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
        $radius = $scene->radius((int) $item->asset_id, (string) $item->kind);
        [$x, $z] = $scene->stage()->clear((float) $item->x + 0.8, (float) $item->z, $radius);
        $y = $item->kind === 'set' ? (float) $item->y : $scene->stage()->stand($x, $z, null, (float) $item->y)
            + $scene->rise((int) $item->asset_id, (string) $item->kind) * (float) $item->scale;
        $by = [$x - (float) $item->x, $y - (float) $item->y, $z - (float) $item->z];
        // What is carried comes along, as far from the copy as the first one's is from it.
        $copies = [];
        foreach ([$item, ...self::carried((int) $item->id, [])] as $one) {
            $copies[(int) $one->id] = $scene->rows->insert(
                'items',
                ['name' => $scene->freeName($one->name)] + self::elsewhere(Item::class, $one, $by),
            );
        }
        foreach (SceneRows::classes() as $table => $class) {
            if ($class === Line::class) {
                // Two who say the same at once are seldom meant.
                continue;
            }
            $this->copy($scene, $table, $class, $copies, $by);
        }
        $scene->remember($in['as'] ?? null, $copies[(int) $item->id]);

        return "Duplicate {$item->name}";
    }

    /**
     * Things that hang on an item at some time, and what hangs on those.
     *
     * @param  array<int, true>  $known
     * @return list<stdClass> rows of items
     */
    private static function carried(int $item, array $known): array
    {
        $out = [];
        $known[$item] = true;
        $children = DB::table('links')->where('parent_id', $item)->pluck('child_id')->unique()->all();
        foreach (DB::table('items')->whereIn('id', $children)->where('kind', 'prop')->orderBy('id')->get() as $child) {
            if (! isset($known[(int) $child->id])) {
                $known[(int) $child->id] = true;
                $out = [...$out, $child, ...self::carried((int) $child->id, $known)];
            }
        }

        return array_values(array_combine(array_map(static fn (stdClass $o): int => (int) $o->id, $out), $out));
    }

    /**
     * Rows of a kind that are part of what was copied, and of nothing else: what it does, and what ties the copies.
     *
     * @param  class-string  $class
     * @param  array<int, int>  $copies  by the id of what they are copies of
     * @param  array{float, float, float}  $by
     */
    private function copy(EditContext $scene, string $table, string $class, array $copies, array $by): void
    {
        $toItem = static fn (Listed $f): bool => $f->field instanceof Ref && $f->field->to === Item::class;
        $refs = array_filter(FieldList::of($class), $toItem);
        $owners = array_filter($refs, static fn (Listed $f): bool => $f->field instanceof Ref && $f->field->owner);
        if ($owners === []) {
            return;
        }
        $rows = DB::table($table)->orderBy('id');
        foreach ($owners as $f) {
            $rows->whereIn($f->column, array_keys($copies));
        }
        foreach ($rows->get() as $row) {
            $ties = [];
            foreach ($refs as $f) {
                $to = $row->{$f->column};
                $ties[$f->column] = $to === null ? null : $copies[(int) $to] ?? (int) $to;
            }
            $scene->rows->insert($table, $ties + self::elsewhere($class, $row, $by));
        }
    }

    /**
     * A row without its id, its places shifted. Who stands by another's beat would stand in the first one's place.
     *
     * @param  class-string  $class
     * @param  array{float, float, float}  $by
     * @return array<string, mixed>
     */
    private static function elsewhere(string $class, stdClass $row, array $by): array
    {
        $said = StoredRow::document($class, (array) $row);
        $new = Shift::of($class, $said, $by);
        if ($class === Beat::class && is_array($said['play'])) {
            $play = array_diff_key($said['play'], ['with' => 0]);
            $new['play'] = $play === [] ? null : $play;
        }

        return RowColumns::stored($class, $new) + array_diff_key((array) $row, ['id' => 0]);
    }
}
