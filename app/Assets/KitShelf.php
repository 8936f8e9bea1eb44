<?php

declare(strict_types=1);

namespace App\Assets;

use App\Models\Arrival;
use App\Models\Asset;
use App\Models\AssetVersion;
use App\Models\Beat;
use App\Models\Item;
use App\Models\Production;
use App\Models\Scene;
use App\Models\User;
use CrispReel\Core\Library\KitSearch;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Support\Collection;

/**
 * Pages of the kit: filtered, searched, sorted; the details of one asset; and the credits of all that a production uses.
 *
 * @phpstan-type Row array{id: int, kind: string, name: string, slug: string, tags: list<string>, credit: string, licence: string, house: bool, colour: int|null, folder: string|null, archived: bool, source: string|null, blob: string|null, picture: string|null, facts: array<string, mixed>, version: int}
 */
final class KitShelf
{
    private const PAGE = 120;

    /** Seconds, over and up to, of what counts as short, middling and long. */
    private const LENGTHS = ['short' => [0.0, 3.0], 'middle' => [3.0, 6.0], 'long' => [6.0, INF]];

    public function __construct(private readonly KitSearch $search)
    {
    }

    /**
     * @param  array<array-key, mixed>  $query  q, kind, licence, house, colour, folder, scene, face, parts, travel, style, length (short, middle, long), archived, sort, offset, limit
     * @return array{total: int, assets: list<array<string, mixed>>, licences: list<string>, folders: list<string>}
     */
    public function page(Production $production, array $query, User $user): array
    {
        $text = static fn (string $k): string => is_string($query[$k] ?? null) ? $query[$k] : '';
        $all = self::visible($production, $user);
        /** @var Builder<Asset> $fitting */
        $fitting = (clone $all)
            ->when(
                $text('archived') === '1',
                static fn (Builder $q) => $q->whereNotNull('archived_at'),
                static fn (Builder $q) => $q->whereNull('archived_at'),
            )
            ->when($text('kind') !== '', static fn (Builder $q) => $q->where('kind', $text('kind')))
            ->when($text('licence') !== '', static fn (Builder $q) => $q->where('licence', $text('licence')))
            ->when($text('house') !== '', static fn (Builder $q) => match ($text('house')) {
                '1' => $q->whereNull('production_id'), 'mine' => $q->whereIn('id', OwnCollection::of($user)),
                default => $q->where('production_id', $production->id),
            })
            ->when($text('colour') !== '', static fn (Builder $q) => $q->where('colour', (int) $text('colour')))
            ->when($text('folder') !== '', static fn (Builder $q) => $q->where('folder', $text('folder')))
            ->when($text('scene') !== '', static fn (Builder $q) => $q->whereIn('id', self::usedIn($production, (int) $text('scene'))))
            ->orderBy('id');
        $found = $fitting->toBase()->get(['id', 'name', 'tags']);
        // Rows and no models: thousands are looked through for each letter that is typed.
        $entries = [];
        foreach ($found as $row) {
            $tags = is_string($row->tags) ? json_decode($row->tags, true) : [];
            $entries[] = [
                'id' => is_numeric($row->id) ? (int) $row->id : 0,
                'name' => is_string($row->name) ? $row->name : '',
                'tags' => is_array($tags) ? array_values(array_filter($tags, is_string(...))) : [],
            ];
        }
        $ids = trim($text('q')) === '' ? array_column($entries, 'id') : $this->search->find($text('q'), $entries);
        $ids = $this->byFacts($ids, $text);
        $offset = max(0, (int) $text('offset'));
        $page = array_slice($ids, $offset, min(self::PAGE, max(1, (int) ($text('limit') ?: self::PAGE))));

        return [
            'total' => count($ids), 'assets' => $this->rows($page),
            'licences' => array_values((clone $all)->distinct()->orderBy('licence')->pluck('licence')->all()),
            'folders' => array_values((clone $all)->whereNotNull('folder')->distinct()->orderBy('folder')->pluck('folder')->all()),
        ];
    }

    /** @return Builder<Asset> */
    private static function visible(Production $production, User $user): Builder
    {
        $query = Asset::query();
        OwnCollection::narrow($query, $production, $user);

        return $query;
    }

    public static function isVisible(Production $production, Asset $asset, User $user): bool
    {
        return self::visible($production, $user)->whereKey($asset->id)->exists();
    }

    /** @return list<int> of a scene of this production; of any other, nothing */
    private static function usedIn(Production $production, int $scene): array
    {
        if (! Scene::query()->whereKey($scene)->where('production_id', $production->id)->exists()) {
            return [];
        }

        return array_values(array_unique([
            ...Item::query()->where('scene_id', $scene)->pluck('asset_id')->all(),
            ...Beat::query()->where('scene_id', $scene)->pluck('asset_id')->all(),
        ]));
    }

    /**
     * Filters and orders that need an asset's facts.
     *
     * @param  list<int>  $ids
     * @param  callable(string): string  $text
     * @return list<int>
     */
    private function byFacts(array $ids, callable $text): array
    {
        $sort = $text('sort');
        $byFacts = array_filter(['face', 'parts', 'travel', 'style', 'length'], static fn (string $k): bool => $text($k) !== '') !== [];
        if ($sort === '' && ! $byFacts) {
            return $ids;
        }
        if ($sort === 'name' || $sort === 'newest') {
            $names = $sort === 'name' ? Asset::query()->whereIn('id', $ids)->pluck('name', 'id')->all() : [];
            $sort === 'name'
                ? usort($ids, static fn (int $a, int $b): int => strnatcasecmp((string) $names[$a], (string) $names[$b]))
                : rsort($ids);
        }
        if ($sort !== 'length' && ! $byFacts) {
            return $ids;
        }
        $facts = $this->newest($ids)->map(static fn (AssetVersion $v): array => $v->facts);
        $number = static function (int $id, string $key) use ($facts): float {
            $v = ($facts[$id] ?? [])[$key] ?? 0;

            return is_numeric($v) ? (float) $v : 0.0;
        };
        [$least, $most] = self::LENGTHS[$text('length')] ?? [-1.0, INF];
        $ids = array_values(array_filter(
            $ids,
            static fn (int $id): bool => $number($id, 'seconds') > $least && $number($id, 'seconds') <= $most
                && ($text('style') === '' || (($facts[$id] ?? [])['style'] ?? '') === $text('style'))
                && ($text('face') !== '1' || $number($id, 'shapes') > 0) && ($text('parts') !== '1' || $number($id, 'joints') > 0)
                && ($text('travel') === '' || ($number($id, 'travel') > 0.3) === ($text('travel') === '1')),
        ));
        if ($sort === 'length') {
            usort($ids, static fn (int $a, int $b): int => $number($a, 'seconds') <=> $number($b, 'seconds'));
        }

        return $ids;
    }

    /**
     * @param  list<int>  $ids
     * @return Collection<int, AssetVersion> by asset
     */
    private function newest(array $ids): Collection
    {
        return AssetVersion::query()
            ->whereIn('id', AssetVersion::query()->selectRaw('max(id)')->whereIn('asset_id', $ids)->groupBy('asset_id'))->get()
            ->keyBy('asset_id');
    }

    /**
     * @param  list<int>  $ids
     * @return list<Row> in the order of the ids
     */
    public function rows(array $ids): array
    {
        $assets = Asset::query()->whereIn('id', $ids)->get()->keyBy('id');
        $versions = $this->newest($ids);
        $out = [];
        foreach ($ids as $id) {
            $a = $assets[$id] ?? null;
            if ($a !== null) {
                $out[] = self::row($a, $versions[$id] ?? null);
            }
        }

        return $out;
    }

    /** @return Row */
    public static function row(Asset $a, ?AssetVersion $v): array
    {
        return [
            'id' => $a->id, 'kind' => $a->kind, 'name' => $a->name, 'slug' => $a->slug, 'tags' => $a->tags, 'credit' => $a->credit,
            'licence' => $a->licence, 'house' => $a->production_id === null,
            'colour' => $a->colour, 'folder' => $a->folder, 'archived' => $a->archived_at !== null, 'source' => $a->source,
            'blob' => $v?->blob, 'picture' => $v?->picture, 'facts' => $v->facts ?? [], 'version' => $v->number ?? 0,
        ];
    }

    /** @return array<string, mixed> */
    public function whole(Production $production, Asset $asset, User $user): array
    {
        $versions = $asset->versions()->orderByDesc('number')->get();
        $scenes = Scene::query()->where('production_id', $production->id)->get(['id', 'name']);
        $uses = [];
        foreach ($scenes as $scene) {
            $count = Item::query()->where('scene_id', $scene->id)->where('asset_id', $asset->id)->count()
                + Beat::query()->where('scene_id', $scene->id)->where('asset_id', $asset->id)->count();
            if ($count > 0) {
                $uses[] = ['scene' => $scene->name, 'times' => $count];
            }
        }

        return self::row($asset, $versions->first()) + [
            'versions' => $versions->map(static fn (AssetVersion $v): array => ['number' => $v->number, 'blob' => $v->blob])->all(),
            'uses' => $uses,
            'arrival' => Arrival::query()->where('production_id', $production->id)->where('asset_id', $asset->id)->orderByDesc('id')
                ->value('id'),
            'same' => $this->same($production, $asset, $versions->first(), $user), 'since' => $asset->created_at?->toDateString(),
            'collected' => in_array($asset->id, OwnCollection::of($user), true),
            'elsewhere' => $asset->production_id === null || $asset->production_id === $production->id
                ? null
                : Production::query()->whereKey($asset->production_id)->value('name'),
        ];
    }

    /** @return list<string> names of other assets with the same file */
    private function same(Production $production, Asset $asset, ?AssetVersion $v, User $user): array
    {
        return $v === null ? [] : array_values(self::visible($production, $user)->where('id', '!=', $asset->id)->whereHas(
            'versions',
            static fn (Builder $q) => $q->where('blob', $v->blob),
        )->pluck('name')->all());
    }

    /** @return list<array{credit: string, licence: string, names: list<string>}> of what the production's scenes use */
    public function credits(Production $production): array
    {
        $scenes = Scene::query()->where('production_id', $production->id)->pluck('id');
        $ids = [
            ...Item::query()->whereIn('scene_id', $scenes)->pluck('asset_id')->all(),
            ...Beat::query()->whereIn('scene_id', $scenes)->pluck('asset_id')->all(),
        ];
        foreach (Item::query()->whereIn('scene_id', $scenes)->whereNotNull('surfaces')->get('surfaces') as $item) {
            array_push($ids, ...array_column($item->surfaces ?? [], 'picture'));
        }
        $out = [];
        foreach (Asset::query()->whereIn('id', array_unique($ids))->orderBy('credit')->orderBy('name')->get() as $a) {
            $out["{$a->credit} {$a->licence}"] ??= ['credit' => $a->credit, 'licence' => $a->licence, 'names' => []];
            $out["{$a->credit} {$a->licence}"]['names'][] = $a->name;
        }

        return array_values($out);
    }
}
