<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * @property int $id
 * @property int $item_id
 * @property int $asset_id
 * @property int $start
 * @property float $source_in
 * @property float|null $source_out
 * @property float $speed
 * @property int $loops
 * @property string $root
 * @property string $join_kind
 * @property int $join_frames
 * @property array<string, mixed> $settings
 * @property array<string, mixed>|null $path
 * @property array<string, mixed>|null $play
 */
class Beat extends Model
{
    protected $guarded = [];

    public $timestamps = false;

    /** @return array<string, string> */
    protected function casts(): array
    {
        return [
            'settings' => 'array', 'path' => 'array', 'play' => 'array', 'source_in' => 'float', 'source_out' => 'float',
            'speed' => 'float',
        ];
    }

    /** @return BelongsTo<Scene, $this> */
    public function scene(): BelongsTo
    {
        return $this->belongsTo(Scene::class);
    }

    /** @return BelongsTo<Asset, $this> */
    public function asset(): BelongsTo
    {
        return $this->belongsTo(Asset::class);
    }

    /** @return BelongsTo<Item, $this> */
    public function item(): BelongsTo
    {
        return $this->belongsTo(Item::class);
    }
}
