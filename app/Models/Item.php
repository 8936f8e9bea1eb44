<?php

declare(strict_types=1);

namespace App\Models;

use CrispReel\Core\Document\Wish;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * @property int $id
 * @property int $scene_id
 * @property string $kind
 * @property int $asset_id
 * @property int|null $pinned_version_id
 * @property string $name
 * @property int $tape
 * @property float $x
 * @property float $y
 * @property float $z
 * @property float $heading_deg
 * @property float $scale
 * @property list<array<string, mixed>>|null $moves
 * @property array<string, mixed>|null $route
 * @property array<string, array{colour?: string, finish?: string, picture?: int, metres?: float, variant?: string}>|null $surfaces  wishes by surface
 * @property array<string, mixed>|null $cloth
 */
class Item extends Model
{
    protected $guarded = [];

    public $timestamps = false;

    /** @return array<string, string> */
    protected function casts(): array
    {
        return [
            'x' => 'float', 'y' => 'float', 'z' => 'float', 'heading_deg' => 'float', 'scale' => 'float', 'moves' => 'array',
            'route' => 'array', 'surfaces' => 'array', 'cloth' => 'array',
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

    /** The variant of its file that it wears, if any. */
    public function variant(): ?string
    {
        return $this->surfaces[Wish::WHOLE]['variant'] ?? null;
    }
}
