<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * @property int $id
 * @property string $render_job_id
 * @property int $from_frame
 * @property int $to_frame
 * @property string $status
 * @property int $attempts
 * @property int $drawn
 * @property RenderJob $job
 */
class RenderChunk extends Model
{
    protected $guarded = [];

    public $timestamps = false;

    /** @return BelongsTo<RenderJob, $this> */
    public function job(): BelongsTo
    {
        return $this->belongsTo(RenderJob::class, 'render_job_id');
    }
}
