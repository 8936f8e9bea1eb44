<?php

declare(strict_types=1);

namespace App\Edits\Commands;

use App\Edits\EditCommand;
use App\Edits\EditContext;
use App\Exceptions\UserError;
use Illuminate\Support\Facades\DB;

/** Moves the cut at which a shot begins: the shot before it ends there, so the cut is one edge. */
final class ShotMove implements EditCommand
{
    public function name(): string
    {
        return 'shot.move';
    }

    public function rules(): array
    {
        return ['shot' => 'required', 'frame' => 'required|integer|between:0,1000000'];
    }

    public function apply(EditContext $scene, array $in): string
    {
        $shot = $scene->find('shots', $in['shot']);
        $frame = (int) $in['frame'];
        $before = DB::table('shots')->where('scene_id', $scene->scene->id)->where('sort', '<', $shot->sort)->orderByDesc('sort')->first();
        if ($before === null || (int) $before->out_frame !== (int) $shot->in_frame) {
            throw new UserError('shot.first', 'There is no cut at the start of this shot to move.', 'Move a cut between two shots.');
        }
        $end = $shot->out_frame === null ? $scene->compiled()->frames : (int) $shot->out_frame;
        if ($frame <= (int) $before->in_frame || $frame >= $end) {
            throw new UserError(
                'shot.room',
                sprintf('The cut can lie from frame %d to %d here.', $before->in_frame + 1, $end - 1),
                'Move it within these frames, or remove the shot.',
            );
        }
        $scene->rows->update('shots', (int) $before->id, ['out_frame' => $frame]);
        $scene->rows->update('shots', (int) $shot->id, ['in_frame' => $frame]);

        return 'Move a cut';
    }
}
