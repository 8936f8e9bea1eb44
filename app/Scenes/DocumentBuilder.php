<?php

declare(strict_types=1);

namespace App\Scenes;

use App\Models\Asset;
use App\Models\AssetVersion;
use App\Models\Item;
use App\Models\Scene;
use CrispReel\Core\Document\Document;
use Illuminate\Support\Facades\DB;
use stdClass;

/** A scene's rows to one immutable Document. */
final class DocumentBuilder
{
    public static function build(Scene $scene): Document
    {
        $scene->loadMissing('production');
        $items = self::rows($scene, 'items', ['moves', 'route', 'surfaces', 'cloth']);
        $beats = self::rows($scene, 'beats', ['settings', 'path', 'play']);
        $used = array_unique([...array_column($items, 'asset_id'), ...array_column($beats, 'asset_id')]);
        $assets = self::assets(array_values($used), $items);
        $pictures = self::pictures($items);
        $shots = self::rows($scene, 'shots', [], 'sort');

        return Document::fromArray([
            'format' => Document::FORMAT, 'version' => Document::VERSION, 'name' => $scene->name,
            'rate' => [(int) $scene->production->rate_num, (int) $scene->production->rate_den],
            'width' => (int) $scene->production->width, 'height' => (int) $scene->production->height, 'mood' => $scene->mood,
            'wind' => $scene->wind,
            'assets' => array_values($assets),
            'items' => array_map(static fn (stdClass $i): array => [
                'id' => "i{$i->id}", 'kind' => $i->kind, 'name' => $i->name, 'asset' => self::assetId($i),
                'position' => [$i->x, $i->y, $i->z],
                'headingDeg' => $i->heading_deg, 'scale' => $i->scale, 'tape' => (int) $i->tape, 'moves' => $i->moves ?? [],
                'route' => $i->route,
                'surfaces' => self::surfaces($i, $pictures), 'cloth' => $i->cloth,
            ], $items),
            'beats' => array_map(static fn (stdClass $b): array => [
                'id' => "b{$b->id}", 'item' => "i{$b->item_id}", 'motion' => "a{$b->asset_id}", 'start' => (int) $b->start,
                'sourceIn' => $b->source_in,
                'sourceOut' => $b->source_out, 'speed' => $b->speed, 'loops' => (int) $b->loops, 'root' => $b->root,
                'join' => $b->join_kind,
                'joinFrames' => (int) $b->join_frames, 'settings' => $b->settings,
                'path' => $b->path, 'play' => $b->play ?? [],
            ], $beats),
            'links' => array_map(static fn (stdClass $l): array => [
                'id' => "l{$l->id}", 'child' => "i{$l->child_id}", 'parent' => "i{$l->parent_id}", 'mount' => $l->mount,
                'from' => (int) $l->from_frame,
                'to' => $l->to_frame === null ? null : (int) $l->to_frame, 'keep' => $l->keep, 'easeFrames' => (int) $l->ease_frames,
                'release' => $l->release, 'velocity' => $l->velocity,
            ], self::rows($scene, 'links', ['velocity'])),
            'touchUps' => array_map(static fn (stdClass $t): array => [
                'id' => "t{$t->id}", 'item' => "i{$t->item_id}", 'joint' => $t->joint, 'from' => (int) $t->from_frame,
                'to' => $t->to_frame === null ? null : (int) $t->to_frame,
                'easeIn' => (int) $t->ease_in, 'easeOut' => (int) $t->ease_out, 'keys' => $t->keys,
            ], self::rows($scene, 'touch_ups', ['keys'])),
            'contacts' => array_map(static fn (stdClass $c): array => [
                'id' => "k{$c->id}", 'item' => "i{$c->item_id}", 'effector' => $c->effector,
                'target' => $c->target_id === null ? null : "i{$c->target_id}", 'mount' => $c->mount,
                'offset' => $c->offset, 'from' => (int) $c->from_frame, 'to' => $c->to_frame === null ? null : (int) $c->to_frame,
                'easeIn' => (int) $c->ease_in, 'easeOut' => (int) $c->ease_out, 'turn' => $c->turn,
            ], self::rows($scene, 'contacts', ['offset'])),
            'cameras' => array_map(static fn (stdClass $c): array => [
                'id' => "c{$c->id}", 'letter' => $c->letter, 'name' => $c->name, 'sensorWidthMm' => $c->sensor_width_mm,
                'sensorHeightMm' => $c->sensor_height_mm, 'keys' => $c->keys,
            ], self::rows($scene, 'cameras', ['keys'], 'letter')),
            'shots' => array_map(static fn (stdClass $s, int $k): array => [
                'id' => "s{$s->id}", 'camera' => "c{$s->camera_id}", 'in' => (int) $s->in_frame,
                'out' => $s->out_frame === null ? null : (int) $s->out_frame, 'label' => $s->label ?? sprintf('%03d', 10 * ($k + 1)),
            ], $shots, array_keys($shots)),
        ]);
    }

    /**
     * Rows as they are, without a model's cost for each: an edit reads them all.
     *
     * @param  list<string>  $json  columns to be read as JSON
     * @return list<stdClass>
     */
    private static function rows(Scene $scene, string $table, array $json, string $order = 'id'): array
    {
        $rows = DB::table($table)->where('scene_id', $scene->id)->orderBy($order)->get()->all();
        foreach ($rows as $row) {
            foreach ($json as $column) {
                $row->{$column} = $row->{$column} === null ? null : json_decode($row->{$column}, true, 64, JSON_THROW_ON_ERROR);
            }
        }

        return array_values($rows);
    }

    /**
     * @param  array<int, string>  $pictures
     * @return list<array<string, mixed>>
     */
    private static function surfaces(stdClass $i, array $pictures): array
    {
        $out = [];
        foreach ($i->surfaces ?? [] as $key => $wish) {
            $out[] = ['key' => $key, 'picture' => isset($wish['picture']) ? $pictures[$wish['picture']] ?? null : null] + $wish;
        }

        return $out;
    }

    /**
     * @param  list<stdClass>  $items
     * @return array<int, string> blob by asset
     */
    private static function pictures(array $items): array
    {
        $ids = [];
        foreach ($items as $i) {
            array_push($ids, ...array_column($i->surfaces ?? [], 'picture'));
        }

        return $ids === [] ? [] : array_map(static fn (AssetVersion $v): string => $v->blob, self::newest(array_unique($ids)));
    }

    public static function assetId(Item|stdClass $i): string
    {
        return $i->pinned_version_id === null ? "a{$i->asset_id}" : "a{$i->asset_id}.v{$i->pinned_version_id}";
    }

    /**
     * @param  array<int, mixed>  $ids
     * @param  list<stdClass>  $items
     * @return array<string, array<string, string>>
     */
    private static function assets(array $ids, array $items): array
    {
        $out = [];
        $newest = self::newest($ids);
        foreach (Asset::query()->whereIn('id', $ids)->orderBy('id')->get() as $asset) {
            $v = $newest[$asset->id] ?? null;
            if ($v !== null) {
                $out["a{$asset->id}"] = [
                    'id' => "a{$asset->id}", 'kind' => $asset->kind, 'name' => $asset->name, 'blob' => $v->blob, 'digest' => $v->digest,
                ];
            }
        }
        $pins = array_filter(array_column($items, 'pinned_version_id'));
        foreach (AssetVersion::query()->with('asset')->whereIn('id', $pins)->get() as $v) {
            $id = "a{$v->asset_id}.v{$v->id}";
            $out[$id] = ['id' => $id, 'kind' => $v->asset->kind, 'name' => $v->asset->name, 'blob' => $v->blob, 'digest' => $v->digest];
        }

        return $out;
    }

    /**
     * @param  array<int, mixed>  $ids
     * @return array<int, AssetVersion> by asset
     */
    private static function newest(array $ids): array
    {
        $out = [];
        foreach (AssetVersion::query()->whereIn('asset_id', $ids)->orderBy('number')->get() as $v) {
            $out[$v->asset_id] = $v;
        }

        return $out;
    }
}
