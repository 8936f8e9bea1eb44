<?php

declare(strict_types=1);

namespace App\Edits\Commands;

use App\Edits\EditCommand;
use App\Edits\EditContext;
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
        [$x, $z] = $scene->clearOf(
            (float) $item->x + 0.8,
            (float) $item->z,
            $item->kind === 'performer' ? 0.35 : $scene->radius((int) $item->asset_id),
        );
        $y = $item->kind === 'set' ? (float) $item->y : $scene->ground($x, $z, null, (float) $item->y)
            + $scene->rise((int) $item->asset_id, (string) $item->kind) * (float) $item->scale;
        $by = [$x - (float) $item->x, $y - (float) $item->y, $z - (float) $item->z];
        // What is carried comes along, as far from the copy as the first one's is from it.
        $copies = [];
        foreach ([$item, ...self::carried((int) $item->id, [])] as $one) {
            $copies[(int) $one->id] = $scene->rows->insert('items', [
                'x' => (float) $one->x + $by[0], 'y' => (float) $one->y + $by[1], 'z' => (float) $one->z + $by[2],
                'name' => $scene->freeName($one->name),
                'moves' => self::shifted($one->moves, static fn (array $keys): array => array_map(
                    static fn (mixed $k): mixed => is_array($k) ? ['position' => self::plus($k['position'] ?? null, $by)] + $k : $k,
                    $keys,
                )),
                'route' => self::along($one->route, $by),
            ] + self::plain($one));
        }
        foreach ($copies as $old => $new) {
            $this->acts($scene, $old, $new, $by);
        }
        $this->ties($scene, $copies, $by);
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
     * What it does: beats and touch-ups.
     *
     * @param  array{float, float, float}  $by
     */
    private function acts(EditContext $scene, int $old, int $new, array $by): void
    {
        foreach (DB::table('beats')->where('item_id', $old)->orderBy('id')->get() as $beat) {
            // Who stands by another's beat would stand in the first one's place.
            $play = self::shifted($beat->play, static fn (array $p): array => array_diff_key($p, ['with' => 0]));
            $scene->rows->insert(
                'beats',
                ['item_id' => $new, 'path' => self::along($beat->path, $by), 'play' => $play] + self::plain($beat),
            );
        }
        foreach (DB::table('touch_ups')->where('item_id', $old)->orderBy('id')->get() as $touchUp) {
            $scene->rows->insert('touch_ups', ['item_id' => $new] + self::plain($touchUp));
        }
    }

    /**
     * What it is tied to: carries among the copies, and contacts, of places in the scene as far away as the first one's.
     *
     * @param  array<int, int>  $copies  by the id of what they are copies of
     * @param  array{float, float, float}  $by
     */
    private function ties(EditContext $scene, array $copies, array $by): void
    {
        $ids = array_keys($copies);
        foreach (DB::table('links')->whereIn('child_id', $ids)->whereIn('parent_id', $ids)->orderBy('id')->get() as $link) {
            $scene->rows->insert('links', [
                'child_id' => $copies[(int) $link->child_id], 'parent_id' => $copies[(int) $link->parent_id],
            ] + self::plain($link));
        }
        foreach (DB::table('contacts')->whereIn('item_id', $ids)->orderBy('id')->get() as $contact) {
            $target = $contact->target_id === null ? null : (int) $contact->target_id;
            $offset = $target === null
                ? self::shifted($contact->offset, static fn (array $o): array => self::plus($o, $by))
                : $contact->offset;
            $scene->rows->insert('contacts', [
                'item_id' => $copies[(int) $contact->item_id], 'target_id' => $copies[$target] ?? $target, 'offset' => $offset,
            ] + self::plain($contact));
        }
    }

    /** @return array<string, mixed> a row without its id */
    private static function plain(stdClass $row): array
    {
        $out = (array) $row;
        unset($out['id']);

        return $out;
    }

    /**
     * A way over the ground, moved; and where it begins, if that is set.
     *
     * @param  array{float, float, float}  $by
     */
    private static function along(?string $way, array $by): ?string
    {
        return self::shifted($way, static function (array $p) use ($by): array {
            if (is_array($p['points'] ?? null)) {
                $p['points'] = array_map(
                    static fn (mixed $q): mixed => is_array($q) ? [(float) $q[0] + $by[0], (float) $q[1] + $by[2]] : $q,
                    $p['points'],
                );
            }
            if (is_array($p['from'] ?? null)) {
                $p['from'] = [...self::plus(array_slice($p['from'], 0, 3), $by), ...array_slice($p['from'], 3)];
            }

            return $p;
        });
    }

    /**
     * A JSON column, changed; null stays null.
     *
     * @param  callable(array<array-key, mixed>): array<array-key, mixed>  $change
     */
    private static function shifted(?string $json, callable $change): ?string
    {
        $value = $json === null ? null : json_decode($json, true);

        return is_array($value) ? (string) json_encode($change($value), JSON_PRESERVE_ZERO_FRACTION) : $json;
    }

    /**
     * @param  array{float, float, float}  $by
     * @return list<float>
     */
    private static function plus(mixed $place, array $by): array
    {
        $p = is_array($place) ? array_values($place) : [0.0, 0.0, 0.0];

        return array_map(static fn (int $k): float => (is_numeric($p[$k] ?? null) ? (float) $p[$k] : 0.0) + $by[$k], [0, 1, 2]);
    }
}
