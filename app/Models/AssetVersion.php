<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * @property int $id
 * @property int $asset_id
 * @property int $number
 * @property string $blob
 * @property string $digest
 * @property string|null $picture
 * @property string|null $light a copy with fewer triangles for work
 * @property array<string, mixed> $facts
 * @property array<mixed> $findings
 * @property Asset $asset
 */
class AssetVersion extends Model
{
    protected $guarded = [];

    /** @return array<string, string> */
    protected function casts(): array
    {
        return ['facts' => 'array', 'findings' => 'array'];
    }

    /** @return BelongsTo<Asset, $this> */
    public function asset(): BelongsTo
    {
        return $this->belongsTo(Asset::class);
    }
}
