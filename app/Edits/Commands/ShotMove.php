<?php

declare(strict_types=1);

namespace App\Edits\Commands;

use App\Edits\EditCommand;
use App\Edits\EditContext;
use App\Exceptions\UserError;
use Illuminate\Support\Facades\DB;

/**
 * Moves the cut at which a shot begins: the shot before it ends there, so the cut is one edge. With ripple the cuts behind it go along,
 * and the last shot gives or takes the time.
 */
final class ShotMove implements EditCommand
{
    public function name(): string
    {
        return 'shot.move';
    }

    public function rules(): array
    {
        return ['shot' => 'required', 'frame' => 'required|integer|between:0,1000000', 'ripple' => 'sometimes|boolean'];
    }

    public function apply(EditContext $scene, array $in): string
    {
        $shot = $scene->find('shots', $in['shot']);
        $frame = (int) $in['frame'];
        $before = DB::table('shots')->where('scene_id', $scene->scene->id)->where('sort', '<', $shot->sort)->orderByDesc('sort')->first();
        if ($before === null || (int) $before->out_frame !== (int) $shot->in_frame) {
            throw new UserError('shot.first', 'There is no cut at the start of this shot to move.', 'Move a cut between two shots.');
        }
        if ($in['ripple'] ?? false) {
            return $this->ripple($scene, $shot, $before, $frame);
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

    private function ripple(EditContext $scene, object $shot, object $before, int $frame): string
    {
        $by = $frame - (int) $shot->in_frame;
        $after = DB::table('shots')->where('scene_id', $scene->scene->id)->where('sort', '>=', $shot->sort)->orderBy('sort')->get();
        $last = $after->last();
        $end = $last?->out_frame === null ? $scene->compiled()->frames : (int) $last->out_frame;
        $most = $end - 1 - (int) ($last->in_frame ?? 0) + (int) $shot->in_frame;
        if ($frame <= (int) $before->in_frame || $frame > $most) {
            throw new UserError(
                'shot.room', sprintf('With all that follows the cut can lie from frame %d to %d here.', $before->in_frame + 1, $most),
                'Move it within these frames, or shorten the last shot.',
            );
        }
        $scene->rows->update('shots', (int) $before->id, ['out_frame' => $frame]);
        foreach ($after as $s) {
            $out = $s->id === $last?->id ? [] : ['out_frame' => (int) $s->out_frame + $by];
            $scene->rows->update('shots', (int) $s->id, ['in_frame' => (int) $s->in_frame + $by] + $out);
        }

        return 'Move a cut and all that follow';
    }
}
