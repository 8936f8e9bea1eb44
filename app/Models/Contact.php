<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/**
 * @property int $id
 * @property int $item_id
 * @property string $effector
 * @property int|null $target_id
 * @property string $mount
 * @property list<float> $offset
 * @property int $from_frame
 * @property int|null $to_frame
 * @property int $ease_in
 * @property int $ease_out
 * @property string $turn
 */
class Contact extends Model
{
    protected $guarded = [];

    public $timestamps = false;

    /** @return array<string, string> */
    protected function casts(): array
    {
        return ['offset' => 'array'];
    }
}
