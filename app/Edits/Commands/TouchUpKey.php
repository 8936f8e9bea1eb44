<?php

declare(strict_types=1);

namespace App\Edits\Commands;

use App\Edits\EditCommand;
use App\Edits\EditContext;
use App\Edits\RowRules;
use App\Exceptions\UserError;
use CrispReel\Core\Document\TouchUpKey as Key;
use CrispReel\Core\Math\Q4;
use stdClass;

/** Sets a key of a touch-up: on the one given, on the joint's touch-up that covers the frame, or on a new one. */
final class TouchUpKey implements EditCommand
{
    public function name(): string
    {
        return 'touchUp.key';
    }

    public function rules(): array
    {
        return [
            'touchUp' => 'sometimes', 'item' => 'required_without:touchUp', 'joint' => 'required_without:touchUp|string|max:80',
            'turnDeg' => 'sometimes|array|size:3', 'turnDeg.*' => 'numeric|between:-360,360',
        ] + RowRules::of(Key::class, ['frame']);
    }

    public function apply(EditContext $scene, array $in): string
    {
        $row = isset($in['touchUp']) ? $scene->find('touch_ups', $in['touchUp']) : $this->covering($scene, $in);
        $key = array_filter([
            'frame' => (int) $in['frame'], 'rotation' => $this->rotation($in),
            'shift' => is_array($in['shift'] ?? null) ? array_map(floatval(...), array_values($in['shift'])) : null,
        ], static fn (mixed $v): bool => $v !== null);
        if ($row === null) {
            $item = $scene->find('items', $in['item']);
            if ($item->kind !== 'performer') {
                throw new UserError('touch-up.not-performer', "\"{$item->name}\" is not a performer.", 'Choose a performer.');
            }
            $id = $scene->rows->insert('touch_ups', [
                'scene_id' => $scene->scene->id, 'item_id' => $item->id, 'joint' => $in['joint'], 'from_frame' => $in['frame'],
                'to_frame' => $in['frame'] + 1,
                'ease_in' => 8, 'ease_out' => 8, 'keys' => json_encode([$key]),
            ]);
            $scene->remember($in['as'] ?? null, $id);

            return "Touch up {$item->name}";
        }
        $keys = $this->with(self::keys($row), $key);
        $frames = array_column($keys, 'frame');
        $scene->rows->update('touch_ups', (int) $row->id, [
            'keys' => json_encode($keys), 'from_frame' => min((int) $row->from_frame, min($frames)),
            'to_frame' => $row->to_frame === null ? null : max((int) $row->to_frame, max($frames) + 1),
        ]);

        return 'Key a touch-up';
    }

    /** @param  array<string, mixed>  $in */
    private function covering(EditContext $scene, array $in): ?stdClass
    {
        $item = $scene->find('items', $in['item']);
        foreach (
            \Illuminate\Support\Facades\DB::table('touch_ups')->where('item_id', $item->id)->where('joint', $in['joint'])->get() as $row
        ) {
            if (
                $in['frame'] >= $row->from_frame - $row->ease_in
                    && ($row->to_frame === null || $in['frame'] < $row->to_frame + $row->ease_out)
            ) {
                return $row;
            }
        }

        return null;
    }

    /**
     * @param  array<string, mixed>  $in
     * @return list<float>|null
     */
    private function rotation(array $in): ?array
    {
        if (is_array($in['rotation'] ?? null)) {
            return array_map(floatval(...), array_values($in['rotation']));
        }
        if (! is_array($in['turnDeg'] ?? null)) {
            return null;
        }
        [$x, $y, $z] = array_map(static fn (mixed $v): float => deg2rad((float) $v), array_values($in['turnDeg']));

        return Q4::pitchYawRoll($x, $y, $z);
    }

    /** @return list<array<string, mixed>> */
    public static function keys(stdClass $row): array
    {
        $keys = json_decode($row->keys, true);

        return is_array($keys) ? array_values(array_filter($keys, is_array(...))) : [];
    }

    /**
     * @param  list<array<string, mixed>>  $keys
     * @param  array<string, mixed>  $key
     * @return list<array<string, mixed>>
     */
    private function with(array $keys, array $key): array
    {
        foreach ($keys as $k => $old) {
            if ($old['frame'] === $key['frame']) {
                $keys[$k] = $key + $old;

                return $keys;
            }
        }
        $keys[] = $key;
        usort($keys, static fn (array $a, array $b): int => $a['frame'] <=> $b['frame']);

        return $keys;
    }
}
