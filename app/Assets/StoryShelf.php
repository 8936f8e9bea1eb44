<?php

declare(strict_types=1);

namespace App\Assets;

use App\Models\Asset;
use App\Models\AssetVersion;
use App\Models\Beat;
use App\Models\Item;
use App\Models\Scene;
use App\Models\User;
use CrispReel\Core\Library\StoryParts;

/**
 * The parts list of a scene: what its story needs, and whether that stands in the scene already or lies on a shelf.
 *
 * @phpstan-import-type Line from StoryParts
 */
final class StoryShelf
{
    public function __construct(private readonly StoryParts $finder)
    {
    }

    /** @return array{lines: list<array{text: string, found: list<array<string, mixed>>, missing: list<string>, cannot: list<string>}>} */
    public function of(Scene $scene, User $user): array
    {
        if (trim((string) $scene->story) === '') {
            return ['lines' => []];
        }
        $items = Item::query()->where('scene_id', $scene->id)->orderBy('id')->get(['id', 'asset_id', 'name', 'kind']);
        $here = array_flip([...$items->pluck('asset_id')->all(), ...Beat::query()->where('scene_id', $scene->id)->pluck('asset_id')->all()]);
        $assets = KitShelf::visible($scene->production, $user)->whereNull('archived_at')->whereIn('kind', ['performer', 'set', 'prop', 'motion', 'sound'])->orderBy('id')->get();
        // What is in the scene answers before what is not, one's own before the house's.
        $sorted = $assets->sortBy(static fn (Asset $a): array => [isset($here[$a->id]) ? 0 : 1, $a->production_id === null ? 1 : 0, $a->id])->values();
        $facts = AssetVersion::query()->whereIn('id', AssetVersion::query()->selectRaw('max(id)')->whereIn('asset_id', $assets->where('kind', 'performer')->pluck('id'))->groupBy('asset_id'))->get()->pluck('facts', 'asset_id')->all();
        $parts = $sorted->map(static fn (Asset $a): array => ['id' => $a->id, 'kind' => $a->kind, 'name' => $a->name, 'tags' => array_values(array_filter($a->tags, is_string(...))), 'facts' => $facts[$a->id] ?? []])->all();
        $cast = $items->where('kind', 'performer')->map(static fn (Item $i): array => ['name' => $i->name, 'id' => $i->asset_id])->values()->all();
        $pictures = AssetVersion::query()->whereIn('id', AssetVersion::query()->selectRaw('max(id)')->whereIn('asset_id', $assets->pluck('id'))->groupBy('asset_id'))->pluck('picture', 'asset_id')->all();

        return ['lines' => array_map(static fn (array $line): array => ['found' => array_map(static fn (array $f): array => $f + ['here' => isset($here[$f['id']]), 'picture' => $pictures[$f['id']] ?? null], $line['found'])] + $line, $this->finder->of((string) $scene->story, array_values($parts), $cast))];
    }
}
