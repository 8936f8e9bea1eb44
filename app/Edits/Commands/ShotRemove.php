<?php

declare(strict_types=1);

namespace App\Edits\Commands;

use App\Edits\EditCommand;
use App\Edits\EditContext;
use Illuminate\Support\Facades\DB;

/** Takes a shot out of the reel; the shot before it takes over its time. */
final class ShotRemove implements EditCommand
{
    public function name(): string
    {
        return 'shot.remove';
    }

    public function rules(): array
    {
        return ['shot' => 'required'];
    }

    public function apply(EditContext $scene, array $in): string
    {
        self::take($scene, $scene->find('shots', $in['shot']));

        return 'Remove a shot';
    }

    public static function take(EditContext $scene, object $shot): void
    {
        $others = static fn () => DB::table('shots')->where('scene_id', $scene->scene->id)->where('id', '!=', $shot->id);
        $before = $others()->where('sort', '<', $shot->sort)->orderByDesc('sort')->first();
        $after = $others()->where('sort', '>', $shot->sort)->orderBy('sort')->first();
        $now = DB::table('shots')->where('id', $shot->id)->first();
        $scene->rows->delete('shots', (int) $shot->id);
        if ($before !== null) {
            $scene->rows->update('shots', (int) $before->id, [
                'out_frame' => $now?->out_frame, ...($after === null ? ['ends' => $now?->ends, 'ends_over' => $now?->ends_over] : []),
            ]);
        } elseif ($after !== null) {
            $scene->rows->update('shots', (int) $after->id, ['in_frame' => $now?->in_frame]);
        }
    }
}
