<?php

declare(strict_types=1);

namespace App\Edits\Commands;

use App\Edits\EditCommand;
use App\Edits\EditContext;
use App\Exceptions\UserError;

/** Holds a hand, a foot, the hips, the head or the look of a performer to a place from a frame up to a frame. */
final class ContactAdd implements EditCommand
{
    public const RULES = [
        'effector' => 'sometimes|in:hips,footL,footR,head,handL,handR,look', 'target' => 'sometimes|nullable',
        'mount' => 'sometimes|nullable|string|max:80',
        'offset' => 'sometimes|array|size:3', 'offset.*' => 'numeric|between:-100000,100000',
        'from' => 'sometimes|integer|between:0,1000000', 'to' => 'sometimes|nullable|integer|between:1,1000000',
        'easeIn' => 'sometimes|integer|between:0,240', 'easeOut' => 'sometimes|integer|between:0,240',
        'turn' => 'sometimes|in:keep,follow,match',
    ];

    private const COLUMNS = [
        'effector' => 'effector', 'from' => 'from_frame', 'to' => 'to_frame', 'easeIn' => 'ease_in', 'easeOut' => 'ease_out',
        'turn' => 'turn',
    ];

    public function name(): string
    {
        return 'contact.add';
    }

    public function rules(): array
    {
        return [
            'item' => 'required', 'effector' => 'required|in:hips,footL,footR,head,handL,handR,look',
            'from' => 'required|integer|between:0,1000000',
        ] + self::RULES;
    }

    public function apply(EditContext $scene, array $in): string
    {
        $item = $scene->find('items', $in['item']);
        if ($item->kind !== 'performer') {
            throw new UserError('contact.not-performer', "\"{$item->name}\" is not a performer.", 'Choose a performer.');
        }
        if (! isset($in['target']) && ! isset($in['offset'])) {
            throw new UserError(
                'contact.where',
                'A contact needs a place: a thing, or a point of the scene.',
                'Give "target", or "offset" as x, y, z.',
            );
        }
        $values = self::columns($scene, $in) + ['scene_id' => $scene->scene->id, 'item_id' => $item->id, 'offset' => '[0,0,0]'];
        self::check((int) $values['from_frame'], $values['to_frame'] ?? null);
        $scene->remember($in['as'] ?? null, $scene->rows->insert('contacts', $values));

        return "Contact of {$item->name}";
    }

    /**
     * @param  array<string, mixed>  $in
     * @return array<string, mixed>
     */
    public static function columns(EditContext $scene, array $in): array
    {
        $out = [];
        foreach (self::COLUMNS as $key => $column) {
            if (array_key_exists($key, $in)) {
                $out[$column] = $in[$key];
            }
        }
        if (array_key_exists('target', $in)) {
            $out['target_id'] = $in['target'] === null ? null : $scene->find('items', $in['target'])->id;
        }
        if (array_key_exists('mount', $in)) {
            $out['mount'] = (string) $in['mount'];
        }
        if (is_array($in['offset'] ?? null)) {
            $out['offset'] = json_encode(array_map(floatval(...), array_values($in['offset'])));
        }

        return $out;
    }

    public static function check(int $from, mixed $to): void
    {
        if (is_numeric($to) && $to <= $from) {
            throw new UserError('contact.frames', 'A contact ends after it begins.', 'Give an end frame later than its start.');
        }
    }
}
