<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Database\Eloquent\Relations\HasMany;

/**
 * @property int $id
 * @property int $production_id
 * @property string $name
 * @property string $mood
 * @property array<string, float|int>|null $wind
 * @property array<string, mixed>|null $mix
 * @property string|null $story
 * @property int $revision
 * @property \Illuminate\Support\Carbon|null $updated_at
 * @property Production $production
 */
class Scene extends Model
{
    protected $guarded = [];

    /** @var array<string, string> */
    protected $casts = ['wind' => 'array', 'mix' => 'array'];

    /** @return BelongsTo<Production, $this> */
    public function production(): BelongsTo
    {
        return $this->belongsTo(Production::class);
    }

    /** @return HasMany<Item, $this> */
    public function items(): HasMany
    {
        return $this->hasMany(Item::class);
    }

    /** @return HasMany<Beat, $this> */
    public function beats(): HasMany
    {
        return $this->hasMany(Beat::class);
    }

    /** @return HasMany<Link, $this> */
    public function links(): HasMany
    {
        return $this->hasMany(Link::class);
    }

    /** @return HasMany<Camera, $this> */
    public function cameras(): HasMany
    {
        return $this->hasMany(Camera::class);
    }

    /** @return HasMany<Shot, $this> */
    public function shots(): HasMany
    {
        return $this->hasMany(Shot::class);
    }

    /** @return HasMany<TouchUp, $this> */
    public function touchUps(): HasMany
    {
        return $this->hasMany(TouchUp::class);
    }

    /** @return HasMany<Contact, $this> */
    public function contacts(): HasMany
    {
        return $this->hasMany(Contact::class);
    }

    /** @return HasMany<Edit, $this> */
    public function edits(): HasMany
    {
        return $this->hasMany(Edit::class);
    }
}
