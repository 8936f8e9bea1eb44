<?php

declare(strict_types=1);

namespace App\Edits\Commands;

use App\Edits\EditCommand;
use App\Edits\EditContext;
use App\Exceptions\UserError;
use CrispReel\Core\Document\Shot;
use CrispReel\Core\Staging\Lay;
use Illuminate\Support\Facades\DB;

/** Lays shots over a span of the reel; what lay there gives way. */
final class ReelLay implements EditCommand
{
    public function name(): string
    {
        return 'reel.lay';
    }

    public function rules(): array
    {
        return [
            'from' => 'required|integer|between:0,1000000', 'to' => 'required|integer|gt:from|max:1000000',
            'shots' => 'required|array|min:1|max:500', 'shots.*.camera' => 'required', 'shots.*.in' => 'required|integer|between:0,1000000',
        ];
    }

    public function apply(EditContext $scene, array $in): string
    {
        [$from, $to] = [(int) $in['from'], (int) $in['to']];
        $new = [];
        foreach (array_values((array) $in['shots']) as $i => $shot) {
            $at = $i === 0 ? $from : (int) $shot['in'];
            if ($at < $from || $at >= $to || ($i > 0 && $at <= $new[$i - 1]['in'])) {
                $remedy = "Give shots in order, from frame {$from} up to {$to}.";
                throw new UserError('reel.order', "Shot {$i} begins at frame {$at}.", $remedy);
            }
            $new[] = ['camera' => (string) $scene->find('cameras', $shot['camera'])->id, 'in' => $at];
        }
        $rows = DB::table('shots')->where('scene_id', $scene->scene->id)->orderBy('sort')->get()->keyBy('id');
        $end = $scene->compiled()->frames;
        $shots = $rows->map(static fn (object $s): Shot => new Shot(
            (string) $s->id, (string) $s->camera_id, (int) $s->in_frame, (int) ($s->out_frame ?? $end), (string) $s->label,
        ))->values()->all();
        $laid = Lay::over($shots, $from, $to, $new);
        $left = array_filter(array_map(static fn (Shot $s): int => (int) $s->id, $laid));
        foreach ($rows->keys()->diff($left) as $gone) {
            $scene->rows->delete('shots', (int) $gone);
        }
        $open = $rows->last()?->out_frame === null;
        foreach ($laid as $n => $s) {
            $values = [
                'sort' => 10 * ($n + 1), 'in_frame' => $s->in,
                'out_frame' => $open && $n === count($laid) - 1 && $s->out >= $end ? null : $s->out,
            ];
            $s->id === ''
                ? $scene->rows->insert('shots', ['scene_id' => $scene->scene->id, 'camera_id' => (int) $s->camera] + $values)
                : $scene->rows->update('shots', (int) $s->id, $values);
        }

        return count($new) === 1 ? 'Lay a shot on the reel' : 'Lay '.count($new).' shots on the reel';
    }
}
