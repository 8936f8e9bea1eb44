<?php

declare(strict_types=1);

namespace App\Assets;

use App\Models\Asset;
use App\Models\Production;
use App\Models\User;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;

/** What a person keeps at hand from one production to the next, as long as they may see where it comes from. */
final class OwnCollection
{
    /**
     * Narrows to what is to be seen in a production: the house's, its own, and what this person keeps.
     *
     * @param  Builder<Asset>  $query
     */
    public static function narrow(Builder $query, Production $production, User $user): void
    {
        $query->where(
            static fn (Builder $q) => $q->whereNull('production_id')->orWhere('production_id', $production->id)
                ->orWhereIn('id', self::of($user))
        );
    }

    /** @return list<int> */
    public static function of(User $user): array
    {
        return array_values(array_map(static fn (mixed $id): int => is_numeric($id) ? (int) $id : 0, DB::table('collected')->join(
            'assets', 'assets.id', '=', 'collected.asset_id',
        )->where('collected.user_id', $user->id)
            ->where(static fn ($q) => $q->whereNull('assets.production_id')->orWhereIn(
                'assets.production_id',
                DB::table('members')->where('user_id', $user->id)->select('production_id'),
            ))->pluck('assets.id')->all()));
    }

    public static function keep(User $user, Asset $asset, bool $keep): void
    {
        $row = ['user_id' => $user->id, 'asset_id' => $asset->id];
        $keep ? DB::table('collected')->insertOrIgnore($row) : DB::table('collected')->where($row)->delete();
    }

    /** The production's own of an asset from elsewhere: the same file under the same name, made once. */
    public static function adopt(Production $production, Asset $asset): Asset
    {
        if ($asset->production_id === null || $asset->production_id === $production->id) {
            return $asset;
        }

        return DB::transaction(static function () use ($production, $asset): Asset {
            $version = $asset->versions()->orderByDesc('number')->firstOrFail();
            $there = Asset::query()->where('production_id', $production->id)->where('kind', $asset->kind)->where('name', $asset->name)
                ->whereHas('versions', static fn (Builder $q) => $q->where('blob', $version->blob))->first();
            if ($there !== null) {
                return $there;
            }
            $own = $asset->replicate(['folder', 'archived_at']);
            $own->fill([
                'production_id' => $production->id,
                'slug' => self::freeSlug($production, $asset->slug),
                'source' => Str::limit('From '.Production::query()->whereKey($asset->production_id)->value('name'), 280),
            ]);
            $own->save();
            $own->versions()->create(['number' => 1] + $version->only(['blob', 'digest', 'light', 'picture', 'facts', 'findings']));

            return $own;
        });
    }

    private static function freeSlug(Production $production, string $slug): string
    {
        for ($n = 1, $free = $slug; Asset::query()->where('production_id', $production->id)->where('slug', $free)->exists(); $n++) {
            $free = "{$slug}-{$n}";
        }

        return $free;
    }
}
