<?php

declare(strict_types=1);

namespace App\Edits\Commands;

use App\Edits\EditCommand;
use App\Edits\EditContext;

/** Camera or label of a shot. */
final class ShotSet implements EditCommand
{
    public function name(): string
    {
        return 'shot.set';
    }

    public function rules(): array
    {
        return ['shot' => 'required', 'camera' => 'sometimes', 'label' => 'sometimes|nullable|string|max:20'];
    }

    public function apply(EditContext $scene, array $in): string
    {
        $shot = $scene->find('shots', $in['shot']);
        $values = array_intersect_key($in, ['label' => 1]);
        if (isset($in['camera'])) {
            $values['camera_id'] = $scene->find('cameras', $in['camera'])->id;
        }
        if ($values !== []) {
            $scene->rows->update('shots', (int) $shot->id, $values);
        }

        return 'Change a shot';
    }
}
