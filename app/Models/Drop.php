<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Database\Eloquent\Relations\HasMany;

/**
 * Files that were dropped together.
 *
 * @property int $id
 * @property int $production_id
 * @property int $user_id
 * @property string $uuid
 * @property string $status
 * @property array<string, string> $unused path to why
 * @property Production $production
 * @property \Illuminate\Support\Carbon $created_at
 */
class Drop extends Model
{
    protected $guarded = [];

    /** @return array<string, string> */
    protected function casts(): array
    {
        return ['unused' => 'array'];
    }

    /** @return BelongsTo<Production, $this> */
    public function production(): BelongsTo
    {
        return $this->belongsTo(Production::class);
    }

    /** @return HasMany<DropFile, $this> */
    public function files(): HasMany
    {
        return $this->hasMany(DropFile::class);
    }

    /** @return HasMany<Arrival, $this> */
    public function arrivals(): HasMany
    {
        return $this->hasMany(Arrival::class);
    }
}
