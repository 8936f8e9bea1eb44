<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/**
 * @property int $id
 * @property int $drop_id
 * @property string $path
 * @property string $blob
 * @property int $bytes
 */
class DropFile extends Model
{
    public $timestamps = false;

    protected $guarded = [];
}
