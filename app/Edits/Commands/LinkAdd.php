<?php

declare(strict_types=1);

namespace App\Edits\Commands;

use App\Edits\EditCommand;
use App\Edits\EditContext;
use App\Exceptions\UserError;

/** Makes a thing go with another (or with one of its joints or mounts) from a frame up to a frame. */
final class LinkAdd implements EditCommand
{
    public function name(): string
    {
        return 'link.add';
    }

    public function rules(): array
    {
        return [
            'child' => 'required', 'parent' => 'required', 'mount' => 'sometimes|nullable|string|max:80',
            'from' => 'required|integer|between:0,1000000',
            'to' => 'sometimes|nullable|integer|between:1,1000000', 'keep' => 'sometimes|in:place,grip',
            'easeFrames' => 'sometimes|integer|between:0,240',
            'release' => 'sometimes|in:stay,fall', 'velocity' => 'sometimes|nullable|array|size:3',
            'velocity.*' => 'numeric|between:-100,100',
        ];
    }

    public function apply(EditContext $scene, array $in): string
    {
        $child = $scene->find('items', $in['child']);
        $parent = $scene->find('items', $in['parent']);
        if ($child->id === $parent->id) {
            throw new UserError('link.self', "\"{$child->name}\" cannot carry itself.", 'Choose another carrier.');
        }
        if (isset($in['to']) && $in['to'] <= $in['from']) {
            throw new UserError('link.frames', 'A carry ends after it begins.', 'Give an end frame later than its start.');
        }
        $id = $scene->rows->insert('links', [
            'scene_id' => $scene->scene->id, 'child_id' => $child->id, 'parent_id' => $parent->id, 'mount' => (string) ($in['mount'] ?? ''),
            'from_frame' => $in['from'], 'to_frame' => $in['to'] ?? null, 'keep' => $in['keep'] ?? 'place',
            'ease_frames' => $in['easeFrames'] ?? 0,
            'release' => $in['release'] ?? 'stay', 'velocity' => isset($in['velocity']) ? json_encode($in['velocity']) : null,
        ]);
        $scene->remember($in['as'] ?? null, $id);

        return "{$parent->name} carries {$child->name}";
    }
}
