<?php

declare(strict_types=1);

namespace App\Edits\Commands;

use App\Edits\EditCommand;
use App\Edits\EditContext;
use App\Exceptions\UserError;

/** When a touch-up works, and how it fades; "unkey" takes the key at a frame away. */
final class TouchUpSet implements EditCommand
{
    public function name(): string
    {
        return 'touchUp.set';
    }

    public function rules(): array
    {
        return [
            'touchUp' => 'required', 'from' => 'sometimes|integer|between:0,1000000',
            'to' => 'sometimes|nullable|integer|between:1,1000000',
            'easeIn' => 'sometimes|integer|between:0,240', 'easeOut' => 'sometimes|integer|between:0,240', 'unkey' => 'sometimes|integer',
        ];
    }

    public function apply(EditContext $scene, array $in): string
    {
        $row = $scene->find('touch_ups', $in['touchUp']);
        $values = [];
        foreach (['from' => 'from_frame', 'to' => 'to_frame', 'easeIn' => 'ease_in', 'easeOut' => 'ease_out'] as $key => $column) {
            if (array_key_exists($key, $in)) {
                $values[$column] = $in[$key];
            }
        }
        if (isset($in['unkey'])) {
            $keys = array_values(array_filter(TouchUpKey::keys($row), static fn (array $k): bool => $k['frame'] !== (int) $in['unkey']));
            if ($keys === []) {
                throw new UserError('touch-up.last-key', 'A touch-up keeps at least one key.', 'Take the whole touch-up away instead.');
            }
            $values['keys'] = json_encode($keys);
        }
        $to = array_key_exists('to_frame', $values) ? $values['to_frame'] : $row->to_frame;
        if ($to !== null && $to <= ($values['from_frame'] ?? $row->from_frame)) {
            throw new UserError('touch-up.frames', 'A touch-up ends after it begins.', 'Give an end frame later than its start.');
        }
        if ($values !== []) {
            $scene->rows->update('touch_ups', (int) $row->id, $values);
        }

        return 'Change a touch-up';
    }
}
