<?php

declare(strict_types=1);

namespace App\Edits;

use App\Exceptions\UserError;
use stdClass;

/** Keeps hands from a camera that is locked. */
final class CameraLock
{
    public static function check(stdClass $camera): void
    {
        if ((bool) $camera->locked) {
            throw new UserError('camera.locked', "Camera {$camera->letter} is locked.", 'Unlock it on its card first.');
        }
    }
}
