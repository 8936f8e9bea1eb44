<?php

declare(strict_types=1);

namespace App\Edits\Commands;

use App\Edits\EditCommand;
use App\Edits\EditContext;
use App\Exceptions\UserError;
use Illuminate\Support\Facades\DB;

/** A new camera at a place, as seen now. The first camera of a scene is put on the reel at once. */
final class CameraAdd implements EditCommand
{
    public const POSE = [
        'position' => 'required|array|size:3', 'position.*' => 'numeric|between:-10000,10000', 'rotation' => 'required|array|size:4',
        'rotation.*' => 'numeric|between:-1.001,1.001',
        'focalMm' => 'sometimes|numeric|between:4,1200', 'focusMetres' => 'sometimes|nullable|numeric|between:0.05,10000',
        'fStop' => 'sometimes|numeric|between:0.7,64',
        'ease' => 'sometimes|in:linear,in,out,inOut,hold',
    ];

    public function name(): string
    {
        return 'camera.add';
    }

    public function rules(): array
    {
        return self::POSE + [
            'letter' => 'sometimes|string|regex:/^[A-Z]{1,2}$/', 'name' => 'sometimes|nullable|string|max:80',
            'frame' => 'sometimes|integer|between:0,1000000',
            'sensorWidthMm' => 'sometimes|numeric|between:1,200', 'sensorHeightMm' => 'sometimes|numeric|between:1,200',
        ];
    }

    public function apply(EditContext $scene, array $in): string
    {
        $letter = is_string($in['letter'] ?? null) ? $in['letter'] : $this->letter($scene);
        if (DB::table('cameras')->where('scene_id', $scene->scene->id)->where('letter', $letter)->exists()) {
            throw new UserError('camera.letter', "There is already a camera {$letter}.", 'Choose another letter.');
        }
        $id = $scene->rows->insert('cameras', [
            'scene_id' => $scene->scene->id, 'letter' => $letter, 'name' => (string) ($in['name'] ?? ''),
            'sensor_width_mm' => $in['sensorWidthMm'] ?? 36.0,
            'sensor_height_mm' => $in['sensorHeightMm'] ?? 24.0, 'keys' => json_encode([self::key($in)]),
        ]);
        if (! DB::table('shots')->where('scene_id', $scene->scene->id)->exists()) {
            $scene->rows->insert('shots', [
                'scene_id' => $scene->scene->id, 'camera_id' => $id, 'sort' => 10, 'in_frame' => 0, 'out_frame' => null,
            ]);
        }
        $scene->remember($in['as'] ?? null, $id);

        return "Camera {$letter}";
    }

    /**
     * @param  array<string, mixed>  $in
     * @return array<string, mixed>
     */
    public static function key(array $in): array
    {
        /** @var array{float|int, float|int, float|int, float|int} $q */
        $q = $in['rotation'];
        $l = sqrt($q[0] ** 2 + $q[1] ** 2 + $q[2] ** 2 + $q[3] ** 2);
        if ($l < 0.5) {
            throw new UserError('camera.rotation', 'The rotation is not a unit quaternion.', 'Send x, y, z, w of a rotation.');
        }

        /** @var array{float|int, float|int, float|int} $p */
        $p = $in['position'];

        return [
            'frame' => (int) ($in['frame'] ?? 0), 'position' => array_map(floatval(...), $p),
            'rotation' => array_map(static fn (float|int $v): float => $v / $l, $q),
            'focalMm' => (float) ($in['focalMm'] ?? 35.0), 'focusMetres' => isset($in['focusMetres']) ? (float) $in['focusMetres'] : null,
            'fStop' => (float) ($in['fStop'] ?? 4.0), 'ease' => $in['ease'] ?? 'inOut',
        ];
    }

    private function letter(EditContext $scene): string
    {
        $used = DB::table('cameras')->where('scene_id', $scene->scene->id)->pluck('letter')->all();
        foreach ([...range('A', 'Z'), ...array_map(static fn (string $l): string => "A{$l}", range('A', 'Z'))] as $letter) {
            if (! in_array($letter, $used, true)) {
                return $letter;
            }
        }
        throw new UserError('camera.count', 'There are no more letters for cameras.', 'Remove a camera that is not used.');
    }
}
