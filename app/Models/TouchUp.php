<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/**
 * @property int $id
 * @property int $item_id
 * @property string $joint
 * @property int $from_frame
 * @property int|null $to_frame
 * @property int $ease_in
 * @property int $ease_out
 * @property list<array<string, mixed>> $keys
 */
class TouchUp extends Model
{
    protected $guarded = [];

    public $timestamps = false;

    /** @return array<string, string> */
    protected function casts(): array
    {
        return ['keys' => 'array'];
    }
}
