<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * @property int $id
 * @property int $production_id
 * @property int|null $invited_by
 * @property string $email
 * @property string $role
 * @property string $token_hash
 * @property \Illuminate\Support\Carbon|null $ends_at
 * @property Production $production
 */
class Invitation extends Model
{
    protected $guarded = [];

    protected $hidden = ['token_hash'];

    /** @return array<string, string> */
    protected function casts(): array
    {
        return ['ends_at' => 'datetime'];
    }

    /** @return BelongsTo<Production, $this> */
    public function production(): BelongsTo
    {
        return $this->belongsTo(Production::class);
    }
}
