<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * @property int $id
 * @property int $scene_id
 * @property int $revision
 * @property int|null $part_of_id
 * @property int|null $user_id
 * @property string $kind
 * @property string $label
 * @property bool $undone
 * @property list<mixed> $commands
 * @property list<array{table: string, id: int, before: array<string, mixed>|null, after: array<string, mixed>|null}> $row_changes
 */
class Edit extends Model
{
    protected $guarded = [];

    public $timestamps = false;

    /** @return array<string, string> */
    protected function casts(): array
    {
        return ['commands' => 'array', 'row_changes' => 'array', 'undone' => 'boolean'];
    }

    /** The edit that this one is a part of, in another scene; itself where it is whole. */
    public function whole(): self
    {
        return $this->part_of_id === null ? $this : self::query()->findOrFail($this->part_of_id);
    }

    /** @return BelongsTo<Scene, $this> */
    public function scene(): BelongsTo
    {
        return $this->belongsTo(Scene::class);
    }

    /** @return BelongsTo<User, $this> */
    public function user(): BelongsTo
    {
        return $this->belongsTo(User::class);
    }
}
