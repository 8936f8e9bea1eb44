<?php

declare(strict_types=1);

namespace App\Edits\Commands;

use App\Edits\CameraLock;
use App\Edits\EditCommand;
use App\Edits\EditContext;
use App\Exceptions\UserError;
use CrispReel\Core\Document\CameraKey;
use CrispReel\Core\Staging\Loosen;
use Illuminate\Support\Facades\DB;
use stdClass;

/** A camera that knows whom it films becomes one with keys that lead it the same way; held at a frame, it stands as it is there. */
final class CameraLoosen implements EditCommand
{
    public function name(): string
    {
        return 'camera.loosen';
    }

    public function rules(): array
    {
        return ['camera' => 'required', 'hold' => 'sometimes|integer|between:0,1000000'];
    }

    public function apply(EditContext $scene, array $in): string
    {
        $camera = $scene->find('cameras', $in['camera']);
        CameraLock::check($camera);
        if (! DB::table('framings')->where('camera_id', $camera->id)->exists()) {
            throw new UserError('camera.loose', "Camera {$camera->letter} has keys already.", 'Aim it at somebody first.');
        }
        self::loosen($scene, $camera, isset($in['hold']) ? (int) $in['hold'] : null);

        return isset($in['hold']) ? "Hold camera {$camera->letter} here" : "Loosen camera {$camera->letter}";
    }

    /** @param  int|null  $hold  the frame as which it stands from now on; null: it moves as it did */
    public static function loosen(EditContext $scene, stdClass $camera, ?int $hold = null): void
    {
        $compiled = $scene->compiled();
        $framed = $compiled->framed["c{$camera->id}"] ?? null;
        if ($framed !== null) {
            $keys = $hold === null ? Loosen::keys($framed, 0, $compiled->frames - 1) : [Loosen::key($hold, $framed->at($hold))];
            $scene->rows->update('cameras', (int) $camera->id, [
                'keys' => json_encode(array_map(static fn (CameraKey $k): array => $k->toArray(), $keys), JSON_THROW_ON_ERROR),
            ]);
        }
        foreach (DB::table('framings')->where('camera_id', $camera->id)->pluck('id') as $id) {
            $scene->rows->delete('framings', (int) $id);
        }
    }

    /**
     * Cameras that film what is about to go stay where they stand.
     *
     * @return list<string> their letters
     */
    public static function leave(EditContext $scene, int $item): array
    {
        $cameras = DB::table('cameras')->whereIn('id', DB::table('framings')->where('subject_id', $item)->orWhere('partner_id', $item)
            ->pluck('camera_id'))->orderBy('letter')->get();
        foreach ($cameras as $camera) {
            self::loosen($scene, $camera);
        }

        return $cameras->pluck('letter')->all();
    }
}
