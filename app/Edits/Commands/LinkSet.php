<?php

declare(strict_types=1);

namespace App\Edits\Commands;

use App\Edits\EditCommand;
use App\Edits\EditContext;
use App\Exceptions\UserError;

/** Changes when, where or how a thing is carried. */
final class LinkSet implements EditCommand
{
    public function name(): string
    {
        return 'link.set';
    }

    public function rules(): array
    {
        return [
            'link' => 'required', 'parent' => 'sometimes', 'mount' => 'sometimes|nullable|string|max:80',
            'from' => 'sometimes|integer|between:0,1000000',
            'to' => 'sometimes|nullable|integer|between:1,1000000', 'keep' => 'sometimes|in:place,grip',
            'easeFrames' => 'sometimes|integer|between:0,240',
            'release' => 'sometimes|in:stay,fall', 'velocity' => 'sometimes|nullable|array|size:3',
            'velocity.*' => 'numeric|between:-100,100',
        ];
    }

    public function apply(EditContext $scene, array $in): string
    {
        $link = $scene->find('links', $in['link']);
        $values = [];
        foreach ([
            'mount' => 'mount', 'from' => 'from_frame', 'to' => 'to_frame', 'keep' => 'keep', 'easeFrames' => 'ease_frames',
            'release' => 'release',
        ] as $key => $column) {
            if (array_key_exists($key, $in)) {
                $values[$column] = $key === 'mount' ? (string) $in[$key] : $in[$key];
            }
        }
        if (array_key_exists('velocity', $in)) {
            $values['velocity'] = $in['velocity'] === null ? null : json_encode($in['velocity']);
        }
        if (isset($in['parent'])) {
            $values['parent_id'] = $scene->find('items', $in['parent'])->id;
        }
        $from = $values['from_frame'] ?? $link->from_frame;
        $to = array_key_exists('to_frame', $values) ? $values['to_frame'] : $link->to_frame;
        if ($to !== null && $to <= $from) {
            throw new UserError('link.frames', 'A carry ends after it begins.', 'Give an end frame later than its start.');
        }
        if ($values !== []) {
            $scene->rows->update('links', (int) $link->id, $values);
        }

        return 'Change a carry';
    }
}
