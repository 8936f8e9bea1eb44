<?php

declare(strict_types=1);

namespace App\Scenes;

use App\Models\Asset;
use App\Models\AssetVersion;
use App\Models\Item;
use App\Models\Scene;
use App\Speech\Readings;
use CrispReel\Core\Document\Document;
use CrispReel\Core\Document\Fields\FieldList;
use CrispReel\Core\Kit\Sounds\SoundKit;
use CrispReel\Core\Speech\Script;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Support\Facades\DB;

/** A scene's rows to one immutable Document. */
final class DocumentBuilder
{
    public static function build(Scene $scene): Document
    {
        $scene->loadMissing('production');
        $rows = [];
        foreach (Document::ROWS as $list => $class) {
            $rows[$list] = self::rows($scene, $class);
        }
        $used = array_unique(array_merge(...array_map(
            static fn (string $list): array => array_column($rows[$list], 'asset_id'), ['items', 'beats', 'sounds', 'takes'],
        )));
        if (($scene->mix['happens'] ?? false) === true) {
            $kit = Asset::query()->whereNull('production_id')->whereIn('slug', array_keys(SoundKit::noises()));
            $used = array_unique([...$used, ...$kit->pluck('id')->all()]);
        }
        $used = array_unique([...$used, ...self::gestures($scene, array_column($rows['lines'], 'text'))]);
        $said = [];
        foreach (Document::ROWS as $list => $class) {
            $said[$list] = array_map(static fn (array $row): array => StoredRow::document($class, $row), $rows[$list]);
        }
        $said['items'] = self::dressed($said['items'], $rows['items']);
        $said['shots'] = self::labelled($said['shots']);
        [$readings, $of] = $said['lines'] === [] ? [[], []] : Readings::ofDocument($scene);
        foreach ($said['lines'] as $k => $line) {
            $said['lines'][$k]['reading'] = $of[$line['id']] ?? '';
        }

        return Document::fromArray([
            'format' => Document::FORMAT, 'version' => Document::VERSION, 'name' => $scene->name,
            'rate' => [(int) $scene->production->rate_num, (int) $scene->production->rate_den],
            'width' => (int) $scene->production->width, 'height' => (int) $scene->production->height, 'mood' => $scene->mood,
            'wind' => $scene->wind, 'mix' => $scene->mix, 'assets' => [
                ...array_values(self::assets(array_values($used), $rows['items'])), ...array_values($readings),
            ],
        ] + $said);
    }

    /**
     * Motions that lines ask for by their names in brackets.
     *
     * @param  list<mixed>  $texts
     * @return list<int>
     */
    private static function gestures(Scene $scene, array $texts): array
    {
        $names = [];
        foreach ($texts as $text) {
            foreach (is_string($text) && str_contains($text, '[') ? Script::does($text) : [] as [$do]) {
                $names[] = $do;
            }
        }
        $names = array_diff($names, Script::DOES);
        $assets = Asset::query()->where('kind', 'motion')->whereIn('name', $names)
            ->where(static fn (Builder $q) => $q->whereNull('production_id')->orWhere('production_id', $scene->production_id));

        return $names === [] ? [] : array_map(intval(...), array_values($assets->pluck('id')->all()));
    }

    /**
     * Rows as they are, without a model's cost for each: an edit reads them all.
     *
     * @param  class-string  $class
     * @return list<array<string, mixed>>
     */
    private static function rows(Scene $scene, string $class): array
    {
        $row = FieldList::row($class);
        $rows = DB::table($row->table)->where('scene_id', $scene->id)->orderBy($row->order)->orderBy('id')->get()->all();

        return array_map(static fn (object $r): array => (array) $r, array_values($rows));
    }

    /**
     * Things at the version that they stay at, with pictures by their hashes.
     *
     * @param  list<array<string, mixed>>  $items  as the document says them
     * @param  list<array<string, mixed>>  $rows
     * @return list<array<string, mixed>>
     */
    private static function dressed(array $items, array $rows): array
    {
        $pictures = self::pictures($items);
        foreach ($rows as $k => $row) {
            if ($row['pinned_version_id'] !== null) {
                $items[$k]['asset'] .= ".v{$row['pinned_version_id']}";
            }
            foreach ($items[$k]['surfaces'] ?? [] as $n => $wish) {
                $items[$k]['surfaces'][$n]['picture'] = isset($wish['picture']) ? $pictures[$wish['picture']] ?? null : null;
            }
        }

        return $items;
    }

    /**
     * Shots without a name of their own are numbered in tens.
     *
     * @param  list<array<string, mixed>>  $shots
     * @return list<array<string, mixed>>
     */
    private static function labelled(array $shots): array
    {
        foreach ($shots as $k => $shot) {
            $shots[$k]['label'] ??= sprintf('%03d', 10 * ($k + 1));
        }

        return $shots;
    }

    /**
     * @param  list<array<string, mixed>>  $items
     * @return array<int, string> blob by asset
     */
    private static function pictures(array $items): array
    {
        $ids = [];
        foreach ($items as $i) {
            array_push($ids, ...array_column((array) ($i['surfaces'] ?? []), 'picture'));
        }

        return $ids === [] ? [] : array_map(static fn (AssetVersion $v): string => $v->blob, self::newest(array_unique($ids)));
    }

    public static function assetId(Item $i): string
    {
        return $i->pinned_version_id === null ? "a{$i->asset_id}" : "a{$i->asset_id}.v{$i->pinned_version_id}";
    }

    /**
     * @param  array<int, mixed>  $ids
     * @param  list<array<string, mixed>>  $items
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
