<?php

declare(strict_types=1);

namespace App\Edits\Commands;

use App\Edits\CameraLock;
use App\Edits\EditCommand;
use App\Edits\EditContext;
use CrispReel\Core\Document\Camera;
use Illuminate\Support\Facades\DB;

/** Takes a camera away; its shots go to the shot before them (or after, at the start). */
final class CameraRemove implements EditCommand
{
    public function name(): string
    {
        return 'camera.remove';
    }

    public function rules(): array
    {
        return ['camera' => 'required'];
    }

    public function apply(EditContext $scene, array $in): string
    {
        $camera = $scene->find('cameras', $in['camera']);
        CameraLock::check($camera);
        foreach (DB::table('shots')->where('camera_id', $camera->id)->orderBy('sort')->get() as $shot) {
            ShotRemove::take($scene, $shot);
        }
        $scene->remove(Camera::class, (int) $camera->id);

        return "Remove camera {$camera->letter}";
    }
}
