<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\HasMany;

class Asset extends Model
{
    protected $guarded = [];

    /** @return array<string, string> */
    protected function casts(): array
    {
        return ['tags' => 'array'];
    }

    /** @return HasMany<AssetVersion, $this> */
    public function versions(): HasMany
    {
        return $this->hasMany(AssetVersion::class);
    }
}
