<?php

declare(strict_types=1);

namespace App\Scenes;

use App\Models\Scene;
use Illuminate\Support\Facades\DB;

/** Database rows in the form the interface keeps them. */
final class SceneRows
{
    private const TABLES = ['items', 'beats', 'links', 'touch_ups', 'contacts', 'cameras', 'shots'];

    /** @return array<string, list<array<string, mixed>>> */
    public static function all(Scene $scene): array
    {
        $out = [];
        foreach (self::TABLES as $table) {
            $rows = DB::table($table)->where('scene_id', $scene->id)->orderBy($table === 'shots' ? 'sort' : 'id')->get()
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
        $n = static fn (string $k): ?int => $r[$k] === null ? null : (int) $r[$k];
        $f = static fn (string $k): ?float => $r[$k] === null ? null : (float) $r[$k];

        return match ($table) {
            'items' => [
                'id' => $n('id'), 'kind' => $r['kind'], 'assetId' => $n('asset_id'), 'name' => $r['name'], 'tape' => $n('tape'),
                'position' => [$f('x'), $f('y'), $f('z')], 'headingDeg' => $f('heading_deg'), 'scale' => $f('scale'),
                'pinned' => $r['pinned_version_id'] === null ? null : $pins[(int) $r['pinned_version_id']] ?? null,
                'moves' => self::json($r['moves']), 'route' => $r['route'] === null ? null : self::json($r['route']),
                'surfaces' => (object) self::json($r['surfaces'] ?? null),
                'cloth' => ($r['cloth'] ?? null) === null ? null : self::json($r['cloth']),
            ],
            'beats' => [
                'id' => $n('id'), 'itemId' => $n('item_id'), 'assetId' => $n('asset_id'), 'start' => $n('start'),
                'sourceIn' => $f('source_in'), 'sourceOut' => $f('source_out'),
                'speed' => $f('speed'), 'loops' => $n('loops'), 'root' => $r['root'], 'join' => $r['join_kind'],
                'joinFrames' => $n('join_frames'), 'settings' => (object) self::json($r['settings']),
                'path' => $r['path'] === null ? null : self::json($r['path']), 'play' => (object) self::json($r['play']),
            ],
            'links' => [
                'id' => $n('id'), 'childId' => $n('child_id'), 'parentId' => $n('parent_id'), 'mount' => $r['mount'],
                'from' => $n('from_frame'), 'to' => $n('to_frame'),
                'keep' => $r['keep'], 'easeFrames' => $n('ease_frames'), 'release' => $r['release'],
                'velocity' => $r['velocity'] === null ? null : self::json($r['velocity']),
            ],
            'touch_ups' => [
                'id' => $n('id'), 'itemId' => $n('item_id'), 'joint' => $r['joint'], 'from' => $n('from_frame'), 'to' => $n('to_frame'),
                'easeIn' => $n('ease_in'), 'easeOut' => $n('ease_out'), 'keys' => self::json($r['keys']),
            ],
            'contacts' => [
                'id' => $n('id'), 'itemId' => $n('item_id'), 'effector' => $r['effector'], 'targetId' => $n('target_id'),
                'mount' => $r['mount'], 'offset' => self::json($r['offset']),
                'from' => $n('from_frame'), 'to' => $n('to_frame'), 'easeIn' => $n('ease_in'), 'easeOut' => $n('ease_out'),
                'turn' => $r['turn'],
            ],
            'cameras' => [
                'id' => $n('id'), 'letter' => $r['letter'], 'name' => $r['name'], 'sensorWidthMm' => $f('sensor_width_mm'),
                'sensorHeightMm' => $f('sensor_height_mm'),
                'keys' => self::json($r['keys']),
            ],
            'shots' => [
                'id' => $n('id'), 'cameraId' => $n('camera_id'), 'sort' => $n('sort'), 'in' => $n('in_frame'), 'out' => $n('out_frame'),
                'label' => $r['label'],
            ],
            'scenes' => [
                'id' => $n('id'), 'name' => $r['name'], 'mood' => $r['mood'], 'story' => $r['story'],
                'wind' => $r['wind'] === null ? null : self::json($r['wind']),
            ],
            default => array_intersect_key($r, ['id' => 1, 'name' => 1, 'rate_num' => 1, 'rate_den' => 1, 'width' => 1, 'height' => 1]),
        };
    }

    /** @return array<array-key, mixed> */
    private static function json(mixed $text): array
    {
        $v = is_string($text) ? json_decode($text, true) : null;

        return is_array($v) ? $v : [];
    }
}
