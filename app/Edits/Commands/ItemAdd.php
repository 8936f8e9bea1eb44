<?php

declare(strict_types=1);

namespace App\Edits\Commands;

use App\Edits\EditCommand;
use App\Edits\EditContext;
use App\Edits\RowRules;
use App\Models\Asset;
use CrispReel\Core\Document\Item;
use Illuminate\Support\Facades\DB;

/** Puts a kit asset into the scene: on the ground, clear of others, facing the given point. */
final class ItemAdd implements EditCommand
{
    public function name(): string
    {
        return 'item.add';
    }

    public function rules(): array
    {
        return [
            'asset' => 'required', 'near' => 'sometimes|array|size:2', 'near.*' => 'numeric|between:-10000,10000',
            'facing' => 'sometimes|array|size:2',
            'facing.*' => 'numeric',
            'home' => 'sometimes|boolean',
        ] + RowRules::only(Item::class, 'name', 'position', 'headingDeg', 'scale', 'tape');
    }

    public function apply(EditContext $scene, array $in): string
    {
        $asset = $scene->asset($in['asset']);
        if ($asset->kind === 'motion') {
            throw new \App\Exceptions\UserError('item.motion', "\"{$asset->name}\" is a motion.", 'Put it on a performer instead.');
        }
        $place = $this->place($scene, $asset->id, $asset->kind, $in);
        $id = $scene->rows->insert('items', [
            'scene_id' => $scene->scene->id, 'kind' => $asset->kind, 'asset_id' => $asset->id,
            'name' => $scene->freeName(is_string($in['name'] ?? null) ? $in['name'] : self::shortName($asset->name, $asset->kind)),
            'tape' => $in['tape'] ?? $this->tape($scene), 'x' => $place[0], 'y' => $place[1], 'z' => $place[2],
            'heading_deg' => $this->heading($place, $in), 'scale' => $in['scale'] ?? 1.0,
        ]);
        $scene->remember($in['as'] ?? null, $id);
        $around = ($in['home'] ?? false) ? $this->around($scene, $asset->id) : null;
        if ($around !== null) {
            $this->apply($scene, ['asset' => $around, 'home' => true]);
        }

        return "Add {$asset->name}".($around === null ? '' : ' and what lies around it');
    }

    /** What lies around a place that is put where it belongs, as long as the scene has nothing of that kind. */
    private function around(EditContext $scene, int $asset): ?string
    {
        $extras = $scene->digest($asset)['extras'] ?? [];
        $slug = is_array($extras) && is_string($extras['around'] ?? null) ? $extras['around'] : null;
        if ($slug === null || ! Asset::query()->whereNull('production_id')->where('slug', $slug)->exists()) {
            return null;
        }
        foreach (DB::table('items')->where('scene_id', $scene->scene->id)->where('kind', 'set')->pluck('asset_id') as $other) {
            if (isset(((array) ($scene->digest((int) $other)['extras'] ?? []))['backdrop'])) {
                return null;
            }
        }

        return $slug;
    }

    /** People go by their first name on the floor. */
    private static function shortName(string $name, string $kind): string
    {
        return $kind === 'performer' ? explode(' ', $name)[0] : $name;
    }

    /**
     * @param  array<string, mixed>  $in
     * @return array{float, float, float}
     */
    private function place(EditContext $scene, int $asset, string $kind, array $in): array
    {
        if (is_array($in['position'] ?? null)) {
            return [(float) $in['position'][0], (float) $in['position'][1], (float) $in['position'][2]];
        }
        $extras = $scene->digest($asset)['extras'] ?? [];
        $home = is_array($extras) && is_array($extras['home'] ?? null) ? $extras['home'] : null;
        $backdrop = is_array($extras) && isset($extras['backdrop']);
        if ($home !== null && (($in['home'] ?? false) || $backdrop || ! isset($in['near']))) {
            return [(float) $home[0], (float) $home[1], (float) $home[2]];
        }
        [$x, $z] = [(float) ($in['near'][0] ?? 0.0), (float) ($in['near'][1] ?? 0.0)];
        if ($kind !== 'set') {
            [$x, $z] = $scene->stage()->clear($x, $z, $scene->radius($asset, $kind));
        }

        return [$x, $scene->stage()->stand($x, $z) + $scene->rise($asset, $kind), $z];
    }

    /**
     * @param  array{float, float, float}  $place
     * @param  array<string, mixed>  $in
     */
    private function heading(array $place, array $in): float
    {
        if (is_array($in['facing'] ?? null) && ! isset($in['headingDeg'])) {
            return round(rad2deg(atan2((float) $in['facing'][0] - $place[0], (float) $in['facing'][1] - $place[2])), 3);
        }

        return (float) ($in['headingDeg'] ?? 0.0);
    }

    /** The tape colour that is used least. */
    private function tape(EditContext $scene): int
    {
        $used = DB::table('items')->where('scene_id', $scene->scene->id)->where('kind', '!=', 'set')->pluck('tape')->countBy()->all();
        $counts = array_map(static fn (int $t): int => (int) ($used[$t] ?? 0), range(0, 7));

        return (int) array_search(min($counts), $counts, true);
    }
}
