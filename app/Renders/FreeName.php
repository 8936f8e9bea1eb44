<?php

declare(strict_types=1);

namespace App\Renders;

use App\Models\RenderJob;
use App\Models\Scene;

/** What the file of a render is called. */
final class FreeName
{
    /** A name that no other render of the production has, so that two files never lie over each other. */
    public static function of(Scene $scene, string $stem, string $ending): string
    {
        $taken = RenderJob::query()->whereIn('scene_id', Scene::query()->where('production_id', $scene->production_id)->select('id'))
            ->where('file_name', 'like', addcslashes($stem, '%_\\').'%')->pluck('file_name')->all();
        $stem = mb_substr($stem, 0, 140);
        for ($n = 1, $name = "{$stem}.{$ending}"; in_array($name, $taken, true); $n++) {
            $name = "{$stem}-".($n + 1).".{$ending}";
        }

        return $name;
    }
}
