<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/**
 * A request that a worker carries out.
 *
 * @property string $id
 * @property int $user_id
 * @property string $method
 * @property string $uri
 * @property string $body
 * @property array<string, array{name: string, blob: string}> $files
 * @property string $status
 * @property int|null $code
 * @property string|null $answer
 * @property \Illuminate\Support\Carbon|null $created_at
 */
class Work extends Model
{
    protected $guarded = [];

    protected $keyType = 'string';

    public $incrementing = false;

    /** @return array<string, string> */
    protected function casts(): array
    {
        return ['files' => 'array'];
    }
}
