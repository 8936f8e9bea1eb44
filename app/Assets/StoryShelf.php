<?php

declare(strict_types=1);

namespace App\Assets;

use App\Models\Asset;
use App\Models\Beat;
use App\Models\Item;
use App\Models\Scene;
use CrispReel\Core\Library\StoryParts;

/**
 * The parts list of a scene: what its story needs, and whether that stands in the scene already or lies on a shelf.
 *
 * @phpstan-import-type Line from StoryParts
 */
final class StoryShelf
{
    public function __construct(private readonly StoryParts $finder, private readonly KitShelf $shelf)
    {
    }

    /** @return array{lines: list<array{text: string, found: list<array<string, mixed>>, missing: list<string>, cannot: list<string>}>} */
    public function of(Scene $scene): array
    {
        if (trim((string) $scene->story) === '') {
            return ['lines' => []];
        }
        $items = Item::query()->where('scene_id', $scene->id)->orderBy('id')->get(['id', 'asset_id', 'name', 'kind']);
        $here = array_flip([
            ...$items->pluck('asset_id')->all(), ...Beat::query()->where('scene_id', $scene->id)->pluck('asset_id')->all(),
        ]);
        // What lies in a collection alone has to be taken into the production first.
        $ids = Asset::query()->where(static fn ($q) => $q->whereNull('production_id')->orWhere('production_id', $scene->production_id))
            ->whereNull('archived_at')->whereIn('kind', ['performer', 'set', 'prop', 'motion', 'sound'])->orderBy('id')->pluck('id')->all();
        $rows = array_column($this->shelf->rows(array_values($ids)), null, 'id');
        // What is in the scene answers before what is not, one's own before the house's.
        uasort($rows, static fn (array $a, array $b): int => [
            isset($here[$b['id']]), $a['house'], $a['id'],
        ] <=> [isset($here[$a['id']]), $b['house'], $b['id']]);
        $cast = $items->where('kind', 'performer')->map(static fn (Item $i): array => ['name' => $i->name, 'id' => $i->asset_id])->values()
            ->all();

        return ['lines' => array_map(
            static fn (array $line): array => ['found' => array_map(
                static fn (array $f): array => $f + ['here' => isset($here[$f['id']]), 'picture' => $rows[$f['id']]['picture'] ?? null],
                $line['found'],
            )] + $line,
            $this->finder->of((string) $scene->story, array_values($rows), $cast),
        )];
    }
}
