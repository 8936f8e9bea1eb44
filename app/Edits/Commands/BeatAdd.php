<?php

declare(strict_types=1);

namespace App\Edits\Commands;

use App\Edits\CommandList;
use App\Edits\EditCommand;
use App\Edits\EditContext;
use App\Edits\PartnerOf;
use App\Edits\RowColumns;
use App\Edits\RowRules;
use App\Exceptions\UserError;
use App\Models\Asset;
use CrispReel\Core\Compile\Nearby;
use CrispReel\Core\Document\Beat;
use CrispReel\Core\Motion\Scores\Moving;
use CrispReel\Core\Staging\Sit;
use CrispReel\Core\Staging\Thrown;
use Illuminate\Support\Facades\DB;
use stdClass;

/**
 * Puts a motion on a performer's lane; without a start it follows the last beat. Half of what two people do together, with a partner
 * (somebody, or "near"), puts the other half on the partner's.
 */
final class BeatAdd implements EditCommand
{
    public function name(): string
    {
        return 'beat.add';
    }

    /**
     * Rules of all that can be said of a beat.
     *
     * @param  list<string>  $without
     * @return array<string, list<mixed>>
     */
    public static function fields(array $without): array
    {
        return ['settings.*' => [self::setting(...)]] + RowRules::of(Beat::class, [], ['motion', ...$without]);
    }

    public function rules(): array
    {
        return ['item' => 'required', 'motion' => 'required', 'partner' => 'sometimes|nullable'] + self::fields(['item']);
    }

    public function apply(EditContext $scene, array $in): string
    {
        $item = $scene->find('items', $in['item']);
        $motion = $scene->asset($in['motion']);
        if ($item->kind !== 'performer') {
            throw new UserError('beat.not-performer', "\"{$item->name}\" is not a performer.", 'Put the motion on a performer.');
        }
        self::needMotion($motion);
        $done = isset($in['partner']) ? $this->onThing($scene, $item, $motion, $in['start'] ?? null) : null;
        if ($done !== null) {
            return $done;
        }
        $partner = isset($in['partner']) ? (new PartnerOf($scene))->find($item, $motion, $in['partner'], $in['start'] ?? null) : null;
        unset($in['partner']);
        if ($partner !== null && in_array($motion->slug, ['led-by-hand', 'be-carried'], true)) {
            // Who leads or carries goes first.
            $lead = ['item' => (int) $partner->item->id, 'motion' => (string) $partner->motion->slug, 'partner' => (int) $item->id];

            return $this->apply($scene, $lead + array_intersect_key($in, ['start' => 0]));
        }
        if ($partner !== null) {
            $in['start'] ??= max($this->after($scene, (int) $item->id), $this->after($scene, (int) $partner->item->id) + $partner->comes);
            $in['settings'] = ($in['settings'] ?? []) + ($partner->gap === null ? [] : ['gap' => round($partner->gap, 2)]);
        }
        if (! isset($in['start'])) {
            $this->walksOn($scene, (int) $item->id, $motion);
        }
        $in['start'] ??= $this->after($scene, (int) $item->id);
        $columns = ['asset_id' => $motion->id] + RowColumns::fresh(Beat::class, self::ordered($in), $scene);
        $id = $scene->rows->insert('beats', $columns);
        $scene->remember($in['as'] ?? null, $id);
        if ($partner !== null) {
            $half = ['item' => "i{$partner->item->id}", 'motion' => "a{$partner->motion->id}", 'start' => $in['start']];
            $half['play'] = ['with' => "b{$id}"];
            // Who is carried is so for as long as the other goes.
            $half['play'] += $partner->motion->slug === 'be-carried' ? ['keepLooping' => true] : [];
            $half += $partner->motion->slug === 'led-by-hand' ? ['settings' => ['side' => $partner->side]] : [];
            $columns = ['asset_id' => $partner->motion->id] + RowColumns::fresh(Beat::class, self::ordered($half), $scene);
            $scene->rows->insert('beats', $columns);
            [$by, $to] = $motion->slug === 'throw-to-b' ? [$partner->item, $item] : [$item, $partner->item];
            $scene->carryOut(
                Thrown::commands($scene->document(), "i{$by->id}", "i{$to->id}", $partner->gap === null ? null : (int) $in['start']),
            );

            return "{$motion->name} for {$item->name} with {$partner->item->name}";
        }

        return "{$motion->name} for {$item->name}";
    }

    /** What begins out of a walk is entered at its pace: the walk before it, along a path, does not stop. */
    private function walksOn(EditContext $scene, int $item, Asset $motion): void
    {
        $recipe = $scene->digest((int) $motion->id)['recipe'] ?? null;
        $score = is_array($recipe) && is_array($recipe['settings'] ?? null) ? $recipe['settings']['score'] ?? '' : '';
        $last = DB::table('beats')->where('item_id', $item)->orderByDesc('start')->orderByDesc('id')->first();
        $path = $last === null || $last->path === null ? null : json_decode($last->path, true);
        if (is_string($score) && Moving::has($score) && $last !== null && is_array($path)) {
            $scene->rows->update('beats', (int) $last->id, ['path' => json_encode(['goesOn' => true] + $path, JSON_THROW_ON_ERROR)]);
        }
    }

    /** Sitting down and getting on and off are done on what is near; null: nothing is, or it is another motion. */
    private function onThing(EditContext $scene, stdClass $item, Asset $motion, ?int $start): ?string
    {
        if ($motion->production_id !== null || ! in_array($motion->slug, ['get-on', 'get-off', 'sit-down'], true)) {
            return null;
        }
        $start ??= $this->after($scene, (int) $item->id);
        if ($motion->slug === 'sit-down') {
            $commands = Sit::of($scene->compiled(), $scene->assets, "i{$item->id}", $start);
            $scene->carryOut($commands);

            return $commands === [] ? null : "{$item->name} goes and sits down";
        }
        if ($motion->slug === 'get-off') {
            return CommandList::get('item.alight')->apply($scene, ['item' => $item->id, 'at' => $start]);
        }
        $thing = Nearby::rideable($scene->compiled(), $scene->assets, "i{$item->id}", (float) $start);

        return $thing === null ? null : CommandList::get('item.ride')->apply(
            $scene, ['item' => $item->id, 'on' => $thing, 'from' => $start, 'getOn' => true],
        );
    }

    public static function needMotion(Asset $motion): void
    {
        if ($motion->kind !== 'motion') {
            throw new UserError('beat.not-motion', "\"{$motion->name}\" is not a motion.", 'Choose a motion from the tray.');
        }
    }

    /**
     * Changes of the walk in the order of the places, those at places that are no more left out.
     *
     * @param  array<string, mixed>  $in
     * @return array<string, mixed>
     */
    public static function ordered(array $in): array
    {
        $path = $in['path'] ?? null;
        if (! is_array($path) || ! is_array($path['changes'] ?? null)) {
            return $in;
        }
        $places = is_array($path['points'] ?? null) ? count($path['points']) : 0;
        $changes = array_filter(
            $path['changes'],
            static fn (mixed $c): bool => is_array($c) && $c['after'] <= $places && ($c['style'] ?? []) !== [],
        );
        usort($changes, static fn (array $a, array $b): int => $a['after'] <=> $b['after']);
        $in['path']['changes'] = $changes === [] ? null : $changes;

        return $in;
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
