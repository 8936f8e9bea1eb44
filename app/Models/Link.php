<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * @property int $id
 * @property int $child_id
 * @property int $parent_id
 * @property string $mount
 * @property int $from_frame
 * @property int|null $to_frame
 * @property string $keep
 * @property int $ease_frames
 * @property string $release
 * @property list<float>|null $velocity
 */
class Link extends Model
{
    protected $guarded = [];

    public $timestamps = false;

    /** @return array<string, string> */
    protected function casts(): array
    {
        return ['velocity' => 'array'];
    }

    /** @return BelongsTo<Scene, $this> */
    public function scene(): BelongsTo
    {
        return $this->belongsTo(Scene::class);
    }
}
