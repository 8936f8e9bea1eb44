<?php

declare(strict_types=1);

namespace App\Edits\Commands;

use App\Edits\CameraLock;
use App\Edits\EditCommand;
use App\Edits\EditContext;
use App\Edits\RowColumns;
use App\Edits\RowRules;
use CrispReel\Core\Document\Camera;
use CrispReel\Core\Document\CameraKey;
use CrispReel\Core\Document\Framing;
use Illuminate\Support\Facades\DB;

/** Name and sensor of a camera, or the lens of all its keys. */
final class CameraSet implements EditCommand
{
    private const LENS = ['focalMm', 'focusMetres', 'fStop'];

    public function name(): string
    {
        return 'camera.set';
    }

    public function rules(): array
    {
        return ['camera' => 'required'] + RowRules::of(Camera::class, [], ['letter', 'keys'])
            + RowRules::only(CameraKey::class, ...self::LENS);
    }

    public function apply(EditContext $scene, array $in): string
    {
        $camera = $scene->find('cameras', $in['camera']);
        if (array_diff(array_keys($in), ['camera', 'locked', 'name', 'wallsAway', 'do', 'as']) !== []) {
            CameraLock::check($camera);
        }
        $values = RowColumns::changed(Camera::class, $in, $scene, $camera);
        $lens = array_intersect_key($in, array_flip(self::LENS));
        if ($lens !== []) {
            $keys = json_decode($camera->keys, true);
            $values['keys'] = json_encode(array_map(static fn (array $k): array => $lens + $k, is_array($keys) ? $keys : []));
        }
        $framed = array_filter(array_intersect_key($lens, ['focalMm' => 0, 'fStop' => 0]));
        foreach ($framed === [] ? [] : DB::table('framings')->where('camera_id', $camera->id)->get() as $framing) {
            $scene->rows->update('framings', (int) $framing->id, RowColumns::changed(Framing::class, $framed, $scene, $framing));
        }
        if ($values !== []) {
            $scene->rows->update('cameras', (int) $camera->id, $values);
        }

        return "Set camera {$camera->letter}";
    }
}
