<?php

declare(strict_types=1);

namespace App\Edits\Commands;

use App\Edits\EditCommand;
use App\Edits\EditContext;
use App\Exceptions\UserError;
use Illuminate\Support\Facades\DB;

/**
 * Cuts to a camera at a frame. The shot on air there is split; on its first frame it only changes camera. What follows
 * begins on the very next frame: there is never a gap or an overlap.
 */
final class ShotCut implements EditCommand
{
    public function name(): string
    {
        return 'shot.cut';
    }

    public function rules(): array
    {
        return ['camera' => 'required', 'frame' => 'required|integer|between:0,1000000'];
    }

    public function apply(EditContext $scene, array $in): string
    {
        $camera = $scene->find('cameras', $in['camera']);
        $frame = (int) $in['frame'];
        $shots = DB::table('shots')->where('scene_id', $scene->scene->id)->orderBy('sort')->get();
        $on = $shots->first(static fn (object $s): bool => $s->in_frame <= $frame && ($s->out_frame === null || $frame < $s->out_frame));
        if ($shots->isEmpty()) {
            $scene->rows->insert('shots', [
                'scene_id' => $scene->scene->id, 'camera_id' => $camera->id, 'sort' => 10, 'in_frame' => 0, 'out_frame' => null,
            ]);
        } elseif ($on === null) {
            throw new UserError('shot.outside', "No shot is on the reel at frame {$frame}.", 'Go to a frame that a shot shows.');
        } elseif ((int) $on->camera_id !== (int) $camera->id) {
            $this->split($scene, $on, (int) $camera->id, $frame);
        }

        return "Cut to camera {$camera->letter}";
    }

    private function split(EditContext $scene, object $on, int $camera, int $frame): void
    {
        if ($frame === (int) $on->in_frame) {
            $scene->rows->update('shots', (int) $on->id, ['camera_id' => $camera]);

            return;
        }
        $next = DB::table('shots')->where('scene_id', $scene->scene->id)->where('sort', '>', $on->sort)->orderBy('sort')->first();
        $scene->rows->update('shots', (int) $on->id, ['out_frame' => $frame]);
        if ($next !== null && $next->sort - $on->sort < 2) {
            foreach (
                DB::table('shots')->where('scene_id', $scene->scene->id)->where('sort', '>', $on->sort)->orderByDesc('sort')->get() as $s
            ) {
                $scene->rows->update('shots', (int) $s->id, ['sort' => $s->sort + 10]);
            }
        }
        $scene->rows->insert('shots', [
            'scene_id' => $scene->scene->id, 'camera_id' => $camera, 'sort' => $next === null ? $on->sort + 10 : $on->sort + 1,
            'in_frame' => $frame, 'out_frame' => $on->out_frame, 'ends' => $on->ends, 'ends_over' => $on->ends_over,
        ]);
    }
}
