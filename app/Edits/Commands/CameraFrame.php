<?php

declare(strict_types=1);

namespace App\Edits\Commands;

use App\Edits\CameraLock;
use App\Edits\EditCommand;
use App\Edits\EditContext;
use App\Edits\RowColumns;
use App\Edits\RowRules;
use App\Exceptions\UserError;
use CrispReel\Core\Document\Framing;
use Illuminate\Support\Facades\DB;

/**
 * Says whom a camera films, and how: a new camera, or one that there is aimed anew as a whole; as a move it leads from what it
 * shows to this.
 */
final class CameraFrame implements EditCommand
{
    public function name(): string
    {
        return 'camera.frame';
    }

    public function rules(): array
    {
        return ['camera' => 'sometimes', 'name' => 'sometimes|string|max:80', 'move' => 'sometimes|boolean']
            + RowRules::of(Framing::class, ['subject', 'frame'], ['camera']);
    }

    public function apply(EditContext $scene, array $in): string
    {
        $subject = $scene->find('items', $in['subject']);
        if (isset($in['partner']) && (int) $scene->find('items', $in['partner'])->id === (int) $subject->id) {
            throw new UserError('framing.partner', "{$subject->name} cannot be filmed with {$subject->name}.", 'Choose somebody else.');
        }
        foreach ((array) ($in['others'] ?? []) as $other) {
            if ((int) $scene->find('items', $other)->id === (int) $subject->id) {
                throw new UserError('framing.others', "{$subject->name} is named twice.", 'Leave the subject out of "others".');
            }
        }
        if (! isset($in['partner']) && in_array($in['kind'] ?? 'single', ['overShoulder', 'together'], true)) {
            throw new UserError('framing.two', 'That takes two.', 'Say with whom: "partner".');
        }
        $new = ! isset($in['camera']);
        if ($new) {
            (new CameraAdd)->apply($scene, [
                'as' => '$framed', 'frame' => $in['frame'], 'position' => [0, 1.5, 4], 'rotation' => [0, 0, 0, 1],
                'focalMm' => $in['focalMm'] ?? 50.0,
            ] + array_intersect_key($in, ['name' => 0]));
            $scene->remember($in['as'] ?? null, (int) $scene->find('cameras', '$framed')->id);
        }
        $camera = $scene->find('cameras', $in['camera'] ?? '$framed');
        CameraLock::check($camera);
        if (($in['move'] ?? false) && ! DB::table('framings')->where('camera_id', $camera->id)->exists()) {
            throw new UserError(
                'framing.keys', "Camera {$camera->letter} is led by keys.", 'Aim it at somebody first; then it can be led on.',
            );
        }
        foreach (DB::table('framings')->where('camera_id', $camera->id)->get() as $old) {
            if (! ($in['move'] ?? false) || (int) $old->frame === (int) $in['frame']) {
                $scene->rows->delete('framings', (int) $old->id);
            }
        }
        $scene->rows->insert('framings', RowColumns::fresh(Framing::class, ['camera' => (int) $camera->id] + $in, $scene));

        return match (true) {
            $new => "Camera {$camera->letter} on {$subject->name}",
            (bool) ($in['move'] ?? false) => "Move camera {$camera->letter}",
            default => "Aim camera {$camera->letter} at {$subject->name}",
        };
    }
}
