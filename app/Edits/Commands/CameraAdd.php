<?php

declare(strict_types=1);

namespace App\Edits\Commands;

use App\Edits\EditCommand;
use App\Edits\EditContext;
use App\Edits\RowColumns;
use App\Edits\RowRules;
use App\Exceptions\UserError;
use CrispReel\Core\Document\Camera;
use CrispReel\Core\Document\CameraKey;
use Illuminate\Support\Facades\DB;

/** A new camera at a place, as seen now. The first camera of a scene is put on the reel at once. */
final class CameraAdd implements EditCommand
{
    public function name(): string
    {
        return 'camera.add';
    }

    public function rules(): array
    {
        return ['letter' => 'sometimes|string|regex:/^[A-Z]{1,2}$/'] + RowRules::of(Camera::class, [], ['letter', 'keys'])
            + RowRules::of(CameraKey::class, ['position', 'rotation']);
    }

    public function apply(EditContext $scene, array $in): string
    {
        $letter = is_string($in['letter'] ?? null) ? $in['letter'] : $this->letter($scene);
        if (DB::table('cameras')->where('scene_id', $scene->scene->id)->where('letter', $letter)->exists()) {
            throw new UserError('camera.letter', "There is already a camera {$letter}.", 'Choose another letter.');
        }
        $id = $scene->rows->insert('cameras', [
            'letter' => $letter, 'keys' => json_encode([self::key($in)]),
        ] + RowColumns::fresh(Camera::class, $in, $scene));
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
