<?php

declare(strict_types=1);

namespace App\Edits\Commands;

use App\Edits\EditCommand;
use App\Edits\EditContext;
use App\Edits\RowRules;
use CrispReel\Core\Document\Mix;
use CrispReel\Core\Document\Moods;
use CrispReel\Core\Document\Wind;

/** The scene's name, story, light mood, wind or mix. */
final class SceneSet implements EditCommand
{
    public function name(): string
    {
        return 'scene.set';
    }

    public function rules(): array
    {
        return [
            'name' => 'sometimes|string|min:1|max:120',
            'mood' => 'sometimes|in:'.implode(',', Moods::names()),
            'story' => 'sometimes|nullable|string|max:20000',
            'wind' => 'sometimes|array', 'mix' => 'sometimes|array',
        ] + RowRules::inside('wind', Wind::class) + RowRules::inside('mix', Mix::class);
    }

    public function apply(EditContext $scene, array $in): string
    {
        $values = array_intersect_key($in, ['name' => 1, 'mood' => 1, 'story' => 1]);
        $now = $scene->scene->fresh();
        foreach (['wind', 'mix'] as $part) {
            if (isset($in[$part]) && is_array($in[$part])) {
                $values[$part] = json_encode($in[$part] + ($now?->getAttribute($part) ?? []), JSON_THROW_ON_ERROR);
            }
        }
        if ($values !== []) {
            $scene->rows->update('scenes', $scene->scene->id, $values);
        }

        return match (true) {
            isset($in['mood']) => 'Set the mood', isset($in['wind']) => 'Set the wind', isset($in['mix']) => 'Set the mix',
            array_key_exists('story', $in) => 'Write the story', default => 'Rename the scene',
        };
    }
}
