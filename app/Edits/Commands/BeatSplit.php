<?php

declare(strict_types=1);

namespace App\Edits\Commands;

use App\Edits\EditCommand;
use App\Edits\EditContext;
use App\Exceptions\UserError;
use CrispReel\Core\Math\Placement;

/** Makes two beats of one at a frame; together they play what the one played. */
final class BeatSplit implements EditCommand
{
    public function name(): string
    {
        return 'beat.split';
    }

    public function rules(): array
    {
        return ['beat' => 'required', 'frame' => 'required|integer|between:1,1000000'];
    }

    public function apply(EditContext $scene, array $in): string
    {
        $beat = $scene->find('beats', $in['beat']);
        $end = $origin = null;
        foreach ($scene->compiled()->lanes["i{$beat->item_id}"]->segments ?? [] as $s) {
            [$end, $origin] = $s->beat === "b{$beat->id}" ? [$s->end, $s->origin] : [$end, $origin];
        }
        $at = (int) $in['frame'] - (int) $beat->start;
        if ($at < 1 || $end === null || $in['frame'] >= $end) {
            throw new UserError(
                'beat.split',
                "Frame {$in['frame']} is not inside this beat.",
                'Put the playhead between its first and its last frame.',
            );
        }
        $play = json_decode((string) $beat->play, true);
        $play = is_array($play) ? $play : [];
        $left = isset($play['length']) ? (int) $play['length'] - $at : null;
        $scene->rows->update('beats', (int) $beat->id, ['play' => json_encode(['length' => $at] + $play)]);
        $later = ['skip' => (int) ($play['skip'] ?? 0) + $at, 'anchor' => 'hips'] + ($left === null ? [] : ['length' => $left]) + $play;
        if ($left === null) {
            unset($later['length']);
        }
        $path = $beat->path === null ? null : json_decode($beat->path, true);
        if (is_array($path) && $origin !== null) {
            // The later half is the end of the same walk, not a walk of its own.
            $item = $scene->compiled()->document->items["i{$beat->item_id}"];
            $place = Placement::standing($item->position, $item->headingDeg, $item->scale);
            $path['from'] ??= [...$place->point([$origin[0], $origin[1], $origin[2]]), $item->headingDeg + rad2deg($origin[3])];
            $beat->path = json_encode($path);
        }
        $row = ['start' => $in['frame'], 'join_kind' => 'carryOn', 'join_frames' => 0, 'play' => json_encode($later)] + (array) $beat;
        unset($row['id']);
        $scene->remember($in['as'] ?? null, $scene->rows->insert('beats', $row));

        return 'Split a beat';
    }
}
