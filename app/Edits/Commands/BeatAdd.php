<?php

declare(strict_types=1);

namespace App\Edits\Commands;

use App\Edits\EditCommand;
use App\Edits\EditContext;
use App\Exceptions\UserError;
use Illuminate\Support\Facades\DB;

/** Puts a motion on a performer's lane; without a start it follows the last beat. */
final class BeatAdd implements EditCommand
{
    private const RULES = [
        'start' => 'sometimes|integer|between:0,1000000', 'sourceIn' => 'sometimes|numeric|between:0,3600',
        'sourceOut' => 'sometimes|nullable|numeric|between:0,3600',
        'speed' => 'sometimes|numeric|between:0.05,20', 'loops' => 'sometimes|integer|between:1,10000',
        'root' => 'sometimes|in:travel,spot',
        'join' => 'sometimes|in:carryOn,blend,cut', 'joinFrames' => 'sometimes|integer|between:0,240',
        'settings' => 'sometimes|array|max:20',
        'path' => 'sometimes|nullable|array|max:5', 'path.points' => 'required_with:path|array|min:1|max:200',
        'path.points.*' => 'array|size:2', 'path.points.*.*' => 'numeric|between:-100000,100000',
        'path.changes' => 'sometimes|nullable|array|max:50', 'path.changes.*.after' => 'required|integer|between:1,200',
        'path.changes.*.style' => 'required|array|max:8', 'path.changes.*.style.*' => 'numeric',
        'path.arrive' => 'sometimes|nullable|integer|between:1,1000000', 'path.faceDeg' => 'sometimes|nullable|numeric|between:-3600,3600',
        'play' => 'sometimes|nullable|array|max:20', 'play.*' => 'sometimes|nullable',
    ];

    private const COLUMNS = [
        'start' => 'start', 'sourceIn' => 'source_in', 'sourceOut' => 'source_out', 'speed' => 'speed', 'loops' => 'loops',
        'root' => 'root',
        'join' => 'join_kind', 'joinFrames' => 'join_frames',
    ];

    public function name(): string
    {
        return 'beat.add';
    }

    /** @return array<string, mixed> rules of all that can be said of a beat */
    public static function fields(): array
    {
        return ['settings.*' => [self::setting(...)]] + self::RULES;
    }

    public function rules(): array
    {
        return ['item' => 'required', 'motion' => 'required'] + self::fields();
    }

    public function apply(EditContext $scene, array $in): string
    {
        $item = $scene->find('items', $in['item']);
        $motion = $scene->asset($in['motion']);
        if ($item->kind !== 'performer') {
            throw new UserError('beat.not-performer', "\"{$item->name}\" is not a performer.", 'Put the motion on a performer.');
        }
        if ($motion->kind !== 'motion') {
            throw new UserError('beat.not-motion', "\"{$motion->name}\" is not a motion.", 'Choose a motion from the tray.');
        }
        $in['start'] ??= $this->after($scene, (int) $item->id);
        $id = $scene->rows->insert('beats', self::columns($in) + [
            'scene_id' => $scene->scene->id, 'item_id' => $item->id, 'asset_id' => $motion->id,
            'settings' => json_encode((object) (is_array($in['settings'] ?? null) ? $in['settings'] : [])),
        ] + self::shaped($in, null));
        $scene->remember($in['as'] ?? null, $id);

        return "{$motion->name} for {$item->name}";
    }

    /**
     * @param  array<string, mixed>  $in
     * @return array<string, mixed>
     */
    public static function columns(array $in): array
    {
        $out = [];
        foreach (self::COLUMNS as $key => $column) {
            if (array_key_exists($key, $in)) {
                $out[$column] = $in[$key];
            }
        }

        return $out;
    }

    /**
     * Path and play as they are stored; what is null is taken away.
     *
     * @param  array<string, mixed>  $in
     * @return array<string, mixed>
     */
    public static function shaped(array $in, ?string $playBefore): array
    {
        $out = [];
        if (array_key_exists('path', $in)) {
            $path = $in['path'];
            $out['path'] = is_array($path) ? json_encode(array_filter([
                'points' => array_map(
                    static fn (mixed $p): array => is_array($p) ? array_map(floatval(...), array_values($p)) : [],
                    is_array($path['points'] ?? null) ? array_values($path['points']) : [],
                ),
                'changes' => self::changes($path['changes'] ?? null, is_array($path['points'] ?? null) ? count($path['points']) : 0),
                'arrive' => $path['arrive'] ?? null, 'faceDeg' => $path['faceDeg'] ?? null,
            ], static fn (mixed $v): bool => $v !== null)) : null;
        }
        if (array_key_exists('play', $in)) {
            $before = $playBefore === null ? [] : json_decode($playBefore, true);
            $play = is_array($in['play'])
                ? array_filter($in['play'] + (is_array($before) ? $before : []), static fn (mixed $v): bool => $v !== null)
                : [];
            $out['play'] = $play === [] ? null : json_encode($play);
        }

        return $out;
    }

    /** @return list<array<string, mixed>>|null those at places that there are, in order */
    private static function changes(mixed $given, int $places): ?array
    {
        $out = [];
        foreach (is_array($given) ? $given : [] as $c) {
            if (is_array($c) && is_array($c['style'] ?? null) && $c['style'] !== []) {
                $out[] = [
                    'after' => (int) (is_numeric($c['after'] ?? null) ? $c['after'] : 0),
                    'style' => array_map(floatval(...), array_filter($c['style'], is_numeric(...))),
                ];
            }
        }

        $out = array_values(array_filter($out, static fn (array $c): bool => $c['after'] <= $places));
        usort($out, static fn (array $a, array $b): int => $a['after'] <=> $b['after']);

        return $out === [] ? null : $out;
    }

    private function after(EditContext $scene, int $item): int
    {
        if (! DB::table('beats')->where('item_id', $item)->exists()) {
            return 0;
        }

        return (int) ceil($scene->compiled()->lanes["i{$item}"]->end() - 1e-6);
    }

    /** Settings are numbers; a talk's line is a text. */
    private static function setting(string $attribute, mixed $value, \Closure $fail): void
    {
        if (str_ends_with($attribute, '.line') ? ! is_string($value) || mb_strlen($value) > 400 : ! is_numeric($value)) {
            $fail(str_ends_with($attribute, '.line') ? 'A line is a text of at most 400 letters.' : 'A setting is a number.');
        }
    }
}
