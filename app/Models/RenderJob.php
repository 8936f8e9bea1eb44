<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Concerns\HasUuids;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Database\Eloquent\Relations\HasMany;

/**
 * @property string $id
 * @property int|null $scene_id
 * @property string $document
 * @property int $from_frame
 * @property int $to_frame
 * @property int $width
 * @property int $height
 * @property string $format
 * @property string $quality
 * @property float $loudness
 * @property string $status
 * @property string $token_hash
 * @property string $token
 * @property string $file_name
 * @property int|null $user_id
 * @property bool $queued
 * @property int|null $bytes
 * @property string|null $error
 * @property float|null $ms_per_frame
 * @property \Illuminate\Support\Carbon|null $created_at
 */
class RenderJob extends Model
{
    use HasUuids;

    protected $guarded = [];

    protected $hidden = ['token', 'token_hash'];

    /** @return array<string, string> */
    protected function casts(): array
    {
        return [
            'token' => 'encrypted', 'queued' => 'boolean', 'loudness' => 'float', 'started_at' => 'datetime', 'finished_at' => 'datetime',
        ];
    }

    /** @return BelongsTo<Scene, $this> */
    public function scene(): BelongsTo
    {
        return $this->belongsTo(Scene::class);
    }

    /** @return HasMany<RenderChunk, $this> */
    public function chunks(): HasMany
    {
        return $this->hasMany(RenderChunk::class);
    }

    public function frames(): int
    {
        return $this->to_frame - $this->from_frame;
    }

    public function isOver(): bool
    {
        return in_array($this->status, ['done', 'cancelled', 'failed'], true);
    }
}
