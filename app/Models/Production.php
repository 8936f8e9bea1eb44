<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\HasMany;
use Illuminate\Support\Facades\DB;

/**
 * @property int $id
 * @property string $name
 * @property int $rate_num
 * @property int $rate_den
 * @property int $width
 * @property int $height
 * @property string|null $say_as  JSON: words that voices say otherwise, by how they are written
 * @property \Illuminate\Support\Carbon|null $updated_at
 * @property \Illuminate\Database\Eloquent\Collection<int, Scene> $scenes
 * @property \Illuminate\Database\Eloquent\Collection<int, Member> $members
 */
class Production extends Model
{
    protected $guarded = [];

    /** @return HasMany<Scene, $this> */
    public function scenes(): HasMany
    {
        return $this->hasMany(Scene::class);
    }

    /** @return HasMany<Member, $this> */
    public function members(): HasMany
    {
        return $this->hasMany(Member::class);
    }

    /** @return HasMany<Asset, $this> */
    public function assets(): HasMany
    {
        return $this->hasMany(Asset::class);
    }

    /** @return HasMany<Arrival, $this> */
    public function arrivals(): HasMany
    {
        return $this->hasMany(Arrival::class);
    }

    /** Goes with everything that is its own. What points at cameras and assets goes before them. */
    public function erase(): void
    {
        DB::transaction(function (): void {
            foreach ($this->scenes as $scene) {
                // Lines wait for lines, and sounds hang on them.
                DB::table('sounds')->where('scene_id', $scene->id)->delete();
                DB::table('takes')->where('scene_id', $scene->id)->delete();
                DB::table('lines')->where('scene_id', $scene->id)->update(['after_id' => null]);
                DB::table('lines')->where('scene_id', $scene->id)->delete();
                $scene->shots()->delete();
                $scene->links()->delete();
                $scene->beats()->delete();
                $scene->items()->delete();
            }
            $this->scenes()->delete();
            $this->delete();
        });
    }
}
