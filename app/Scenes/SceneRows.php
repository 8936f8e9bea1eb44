<?php

declare(strict_types=1);

namespace App\Scenes;

use App\Models\Scene;
use CrispReel\Core\Document\Document;
use CrispReel\Core\Document\Fields\FieldList;
use Illuminate\Support\Facades\DB;

/** Database rows in the form the interface keeps them. */
final class SceneRows
{
    /** @return array<string, class-string> the kinds of rows by their tables */
    public static function classes(): array
    {
        $out = [];
        foreach (Document::ROWS as $class) {
            $out[FieldList::row($class)->table] = $class;
        }

        return $out;
    }

    /** @return array<string, list<array<string, mixed>>> */
    public static function all(Scene $scene): array
    {
        $out = [];
        foreach (self::classes() as $table => $class) {
            $rows = DB::table($table)->where('scene_id', $scene->id)->orderBy(FieldList::row($class)->order)->orderBy('id')->get()
                ->map(static fn (object $r): array => (array) $r)->all();
            $pins = $table === 'items' ? self::pins($rows) : [];
            $out[$table] = array_map(static fn (array $r): array => self::present($table, $r, $pins), array_values($rows));
        }

        return $out;
    }

    /**
     * @param  list<array{table: string, id: int, before: array<string, mixed>|null, after: array<string, mixed>|null}>  $changes
     * @param  int  $scene  rows of other scenes that an edit reached into are none of its page
     * @return list<array<string, mixed>>
     */
    public static function changes(array $changes, int $scene): array
    {
        $out = [];
        $changes = array_filter($changes, static fn (array $c): bool => (($c['after'] ?? $c['before'])['scene_id'] ?? $scene) === $scene);
        $pins = self::pins(array_column(
            array_filter($changes, static fn (array $c): bool => $c['table'] === 'items' && $c['after'] !== null),
            'after',
        ));
        foreach ($changes as $c) {
            $out["{$c['table']} {$c['id']}"] = [
                'table' => $c['table'],
                'id' => $c['id'],
                'row' => $c['after'] === null ? null : self::present($c['table'], $c['after'], $pins),
            ];
        }

        return array_values($out);
    }

    /**
     * Numbers of the versions that items stay at, by the version's id.
     *
     * @param  array<int, array<string, mixed>>  $items
     * @return array<int, int>
     */
    private static function pins(array $items): array
    {
        $ids = array_filter(array_column($items, 'pinned_version_id'));

        return $ids === [] ? [] : array_map(
            static fn (mixed $n): int => is_numeric($n) ? (int) $n : 0,
            DB::table('asset_versions')->whereIn('id', $ids)->pluck('number', 'id')->all(),
        );
    }

    /**
     * @param  array<string, mixed>  $r
     * @param  array<int, int>  $pins  number of a version by its id
     * @return array<string, mixed>
     */
    private static function present(string $table, array $r, array $pins): array
    {
        $class = self::classes()[$table] ?? null;
        if ($class !== null) {
            return StoredRow::page($class, $r) + ($table !== 'items' ? [] : [
                'pinned' => is_numeric($r['pinned_version_id']) ? $pins[(int) $r['pinned_version_id']] ?? null : null,
            ]);
        }

        return $table === 'scenes'
            ? [
                'wind' => self::json($r['wind'] ?? null), 'mix' => self::json($r['mix'] ?? null),
            ] + array_intersect_key($r, ['id' => 1, 'name' => 1, 'mood' => 1, 'story' => 1])
                + ['story' => null]
            : array_intersect_key($r, ['id' => 1, 'name' => 1, 'rate_num' => 1, 'rate_den' => 1, 'width' => 1, 'height' => 1]);
    }

    /** @return array<array-key, mixed>|null */
    private static function json(mixed $text): ?array
    {
        $v = is_string($text) ? json_decode($text, true) : null;

        return is_array($v) ? $v : null;
    }
}
