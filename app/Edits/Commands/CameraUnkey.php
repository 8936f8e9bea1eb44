<?php

declare(strict_types=1);

namespace App\Edits\Commands;

use App\Edits\CameraLock;
use App\Edits\EditCommand;
use App\Edits\EditContext;
use App\Exceptions\UserError;

/** Takes a key out of a camera's move. */
final class CameraUnkey implements EditCommand
{
    public function name(): string
    {
        return 'camera.unkey';
    }

    public function rules(): array
    {
        return ['camera' => 'required', 'frame' => 'required|integer|between:0,1000000'];
    }

    public function apply(EditContext $scene, array $in): string
    {
        $camera = $scene->find('cameras', $in['camera']);
        CameraLock::check($camera);
        $keys = json_decode($camera->keys, true);
        $keys = is_array($keys) ? $keys : [];
        $left = array_values(array_filter($keys, static fn (array $k): bool => $k['frame'] !== (int) $in['frame']));
        if (count($left) === count($keys)) {
            throw new UserError(
                'camera.no-key',
                "Camera {$camera->letter} has no key at frame {$in['frame']}.",
                'Go to a frame that has one.',
            );
        }
        if ($left === []) {
            throw new UserError('camera.last-key', "Camera {$camera->letter} needs at least one key.", 'Remove the camera instead.');
        }
        $scene->rows->update('cameras', (int) $camera->id, ['keys' => json_encode($left)]);

        return "Remove a key of camera {$camera->letter}";
    }
}
