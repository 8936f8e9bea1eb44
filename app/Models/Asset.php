<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\HasMany;

/**
 * @property int $id
 * @property int|null $production_id
 * @property string $kind
 * @property string $slug
 * @property string $name
 * @property list<string> $tags
 * @property string $credit
 * @property string $licence
 * @property string|null $source the file it came from, as it was called
 * @property int|null $colour
 * @property string|null $folder
 * @property \Illuminate\Support\Carbon|null $archived_at
 * @property \Illuminate\Support\Carbon|null $created_at
 * @property \Illuminate\Database\Eloquent\Collection<int, AssetVersion> $versions
 */
class Asset extends Model
{
    protected $guarded = [];

    /** @return array<string, string> */
    protected function casts(): array
    {
        return ['tags' => 'array', 'archived_at' => 'datetime'];
    }

    /** @return HasMany<AssetVersion, $this> */
    public function versions(): HasMany
    {
        return $this->hasMany(AssetVersion::class);
    }
}
