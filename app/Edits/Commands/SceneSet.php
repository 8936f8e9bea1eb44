<?php

declare(strict_types=1);

namespace App\Edits\Commands;

use App\Edits\EditCommand;
use App\Edits\EditContext;

/** The scene's name or light mood. */
final class SceneSet implements EditCommand
{
    public function name(): string
    {
        return 'scene.set';
    }

    public function rules(): array
    {
        return ['name' => 'sometimes|string|min:1|max:120', 'mood' => 'sometimes|in:dusk,night,fog,neutral'];
    }

    public function apply(EditContext $scene, array $in): string
    {
        $values = array_intersect_key($in, ['name' => 1, 'mood' => 1]);
        if ($values !== []) {
            $scene->rows->update('scenes', $scene->scene->id, $values);
        }

        return isset($in['mood']) ? 'Set the mood' : 'Rename the scene';
    }
}
