<?php

declare(strict_types=1);

namespace App\Edits\Commands;

use App\Edits\EditCommand;
use App\Edits\EditContext;
use App\Exceptions\UserError;
use CrispReel\Core\Compile\LaneSegment;
use CrispReel\Core\Math\Placement;
use stdClass;

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
        $end = self::segment($scene, $beat)?->end;
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
        $beat->path = self::fromItsOrigin($scene, $beat);
        $row = ['start' => $in['frame'], 'join_kind' => 'carryOn', 'join_frames' => 0, 'play' => json_encode($later)] + (array) $beat;
        unset($row['id']);
        $scene->remember($in['as'] ?? null, $scene->rows->insert('beats', $row));

        return 'Split a beat';
    }

    /** A walk that loses its beginning stays the same walk, and does not become one of its own from where it is taken up. */
    public static function keepOrigin(EditContext $scene, stdClass $beat): void
    {
        $path = self::fromItsOrigin($scene, $beat);
        if ($path !== $beat->path) {
            $scene->rows->update('beats', (int) $beat->id, ['path' => $path]);
        }
    }

    /** The path with the place and heading that its walk begins with now. */
    private static function fromItsOrigin(EditContext $scene, stdClass $beat): ?string
    {
        $path = $beat->path === null ? null : json_decode($beat->path, true);
        $origin = self::segment($scene, $beat)?->origin;
        if (! is_array($path) || $origin === null) {
            return $beat->path;
        }
        $item = $scene->compiled()->document->items["i{$beat->item_id}"];
        $place = Placement::standing($item->position, $item->headingDeg, $item->scale);
        $path['from'] ??= [...$place->point([$origin[0], $origin[1], $origin[2]]), $item->headingDeg + rad2deg($origin[3])];

        return (string) json_encode($path);
    }

    private static function segment(EditContext $scene, stdClass $beat): ?LaneSegment
    {
        foreach ($scene->compiled()->lanes["i{$beat->item_id}"]->segments ?? [] as $s) {
            if ($s->beat === "b{$beat->id}") {
                return $s;
            }
        }

        return null;
    }
}
