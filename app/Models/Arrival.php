<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * One file that came in: what arrived, what was found, what was chosen, and the asset it became.
 *
 * @property int $id
 * @property int $production_id
 * @property int|null $drop_id
 * @property int|null $asset_id
 * @property string $name
 * @property string $path
 * @property string $format
 * @property string $original
 * @property int $bytes
 * @property array<string, string> $companions path to blob
 * @property string $status
 * @property string|null $kind
 * @property array<string, array<string, mixed>|false> $choices
 * @property array<string, int> $motions name to asset
 * @property array<string, mixed>|null $slip
 * @property array{reason: string, message: string, remedy: string}|null $error
 * @property float|null $seconds
 * @property int $tries
 * @property \Illuminate\Support\Carbon|null $seen_at
 * @property Production $production
 * @property Asset|null $asset
 */
class Arrival extends Model
{
    protected $guarded = [];

    /** @return array<string, string> */
    protected function casts(): array
    {
        return [
            'companions' => 'array', 'choices' => 'array', 'motions' => 'array', 'slip' => 'array', 'error' => 'array',
            'seen_at' => 'datetime', 'bytes' => 'integer',
        ];
    }

    /** @return BelongsTo<Production, $this> */
    public function production(): BelongsTo
    {
        return $this->belongsTo(Production::class);
    }

    /** @return BelongsTo<Asset, $this> */
    public function asset(): BelongsTo
    {
        return $this->belongsTo(Asset::class);
    }
}
