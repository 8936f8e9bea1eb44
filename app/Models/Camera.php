<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * @property int $id
 * @property string $letter
 * @property string $name
 * @property float $sensor_width_mm
 * @property float $sensor_height_mm
 * @property list<array<string, mixed>> $keys
 */
class Camera extends Model
{
    protected $guarded = [];

    public $timestamps = false;

    /** @return array<string, string> */
    protected function casts(): array
    {
        return ['keys' => 'array', 'sensor_width_mm' => 'float', 'sensor_height_mm' => 'float'];
    }

    /** @return BelongsTo<Scene, $this> */
    public function scene(): BelongsTo
    {
        return $this->belongsTo(Scene::class);
    }
}
