<?php

declare(strict_types=1);

namespace App\Edits\Commands;

use App\Edits\CameraLock;
use App\Edits\EditCommand;
use App\Edits\EditContext;
use App\Edits\RowRules;
use App\Exceptions\UserError;
use CrispReel\Core\Document\CameraKey as Key;
use Illuminate\Support\Facades\DB;

/** A key of a camera's move at a frame; an old key there is replaced. */
final class CameraKey implements EditCommand
{
    public function name(): string
    {
        return 'camera.key';
    }

    public function rules(): array
    {
        return ['camera' => 'required'] + RowRules::of(Key::class, ['frame', 'position', 'rotation']);
    }

    public function apply(EditContext $scene, array $in): string
    {
        $camera = $scene->find('cameras', $in['camera']);
        CameraLock::check($camera);
        if (DB::table('framings')->where('camera_id', $camera->id)->exists()) {
            throw new UserError(
                'camera.framed', "Camera {$camera->letter} is led by whom it films.", 'Loosen it first, or aim it anew.',
            );
        }
        $keys = json_decode($camera->keys, true);
        $keys = array_filter(is_array($keys) ? $keys : [], static fn (array $k): bool => $k['frame'] !== (int) $in['frame']);
        $keys[] = CameraAdd::key($in);
        usort($keys, static fn (array $a, array $b): int => $a['frame'] <=> $b['frame']);
        $scene->rows->update('cameras', (int) $camera->id, ['keys' => json_encode($keys)]);

        return "Key camera {$camera->letter}";
    }
}
