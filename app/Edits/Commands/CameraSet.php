<?php

declare(strict_types=1);

namespace App\Edits\Commands;

use App\Edits\EditCommand;
use App\Edits\EditContext;

/** Name and sensor of a camera, or the lens of all its keys. */
final class CameraSet implements EditCommand
{
    public function name(): string
    {
        return 'camera.set';
    }

    public function rules(): array
    {
        return [
            'camera' => 'required', 'name' => 'sometimes|nullable|string|max:80', 'sensorWidthMm' => 'sometimes|numeric|between:1,200',
            'sensorHeightMm' => 'sometimes|numeric|between:1,200',
            'focalMm' => 'sometimes|numeric|between:4,1200', 'fStop' => 'sometimes|numeric|between:0.7,64',
            'focusMetres' => 'sometimes|nullable|numeric|between:0.05,10000',
        ];
    }

    public function apply(EditContext $scene, array $in): string
    {
        $camera = $scene->find('cameras', $in['camera']);
        $values = [];
        foreach (['name' => 'name', 'sensorWidthMm' => 'sensor_width_mm', 'sensorHeightMm' => 'sensor_height_mm'] as $key => $column) {
            if (array_key_exists($key, $in)) {
                $values[$column] = $in[$key] ?? '';
            }
        }
        $lens = array_intersect_key($in, ['focalMm' => 1, 'fStop' => 1, 'focusMetres' => 1]);
        if ($lens !== []) {
            $keys = json_decode($camera->keys, true);
            $values['keys'] = json_encode(array_map(static fn (array $k): array => $lens + $k, is_array($keys) ? $keys : []));
        }
        if ($values !== []) {
            $scene->rows->update('cameras', (int) $camera->id, $values);
        }

        return "Set camera {$camera->letter}";
    }
}
