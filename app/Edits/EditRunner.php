<?php

declare(strict_types=1);

namespace App\Edits;

use App\Assets\StoredAssets;
use App\Exceptions\UserError;
use App\Models\Edit;
use App\Models\Scene;
use App\Models\User;
use App\Scenes\SceneStream;
use CrispReel\Core\Compile\CompiledScene;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Validator;

/**
 * Runs edit commands on a scene in one transaction: all or nothing, journalled, checked by settling the whole scene.
 *
 * @phpstan-import-type Change from Recorder
 */
final class EditRunner
{
    /** Bytes of one call, as JSON. */
    private const MOST_BYTES = 1 << 20;

    /** Two hours. */
    private const MOST_SECONDS = 7200;

    public function __construct(private readonly SceneStream $stream, private readonly StoredAssets $assets)
    {
    }

    /**
     * @param  list<mixed>  $commands
     * @param  int|null  $base  the revision the person saw; null: the present one
     * @param  string|null  $call  the call's own name (UUID): the same name again gives the first answer and changes nothing
     * @return array{Edit, CompiledScene}
     */
    public function run(Scene $scene, ?User $user, array $commands, ?int $base = null, ?string $call = null): array
    {
        $limit = config('reel.commands_per_call');
        if (count($commands) === 0 || count($commands) > (is_int($limit) ? $limit : 500)) {
            throw new UserError(
                'edit.count',
                sprintf('%d commands in one call; from 1 to %d are taken.', count($commands), is_int($limit) ? $limit : 500),
                'Send them in several calls.',
            );
        }
        if (strlen((string) json_encode($commands, JSON_INVALID_UTF8_SUBSTITUTE | JSON_PARTIAL_OUTPUT_ON_ERROR)) > self::MOST_BYTES) {
            throw new UserError(
                'edit.size',
                sprintf('The call is larger than %d KB.', intdiv(self::MOST_BYTES, 1024)),
                'Send it in several calls.',
                413,
            );
        }
        $checked = array_map(fn (mixed $c, int $n): array => $this->check($c, $n), $commands, array_keys($commands));

        return DB::transaction(function () use ($scene, $user, $checked, $commands, $base, $call): array {
            $scene = $this->locked($scene);
            $before = $this->answered($scene, $user, $call, 'do');
            if ($before !== null) {
                return $before;
            }
            $rows = new Recorder;
            $context = new EditContext($scene, $rows, $this->stream, $this->assets);
            $labels = [];
            foreach ($checked as $n => [$command, $in]) {
                try {
                    $labels[] = $command->apply($context, $in);
                } catch (UserError $e) {
                    throw count($checked) === 1
                        ? $e
                        : new UserError($e->reason, "Command {$n} ({$command->name()}): {$e->getMessage()}", $e->remedy, $e->status);
                }
            }
            $this->refuseConflict($scene, $base, $rows->changes());
            $this->refuseLong($context->compiled());
            $label = $labels[0].(count($labels) > 1 ? ' and '.(count($labels) - 1).' more' : '');

            return $this->journal($scene, $user, 'do', $label, array_values($commands), $rows, $context->compiled(), call: $call);
        }, 3);
    }

    /** @return array{Edit, CompiledScene} */
    public function undo(Scene $scene, User $user, ?string $call = null): array
    {
        return $this->turnBack($scene, $user, 'undo', $call);
    }

    /** @return array{Edit, CompiledScene} */
    public function redo(Scene $scene, User $user, ?string $call = null): array
    {
        return $this->turnBack($scene, $user, 'redo', $call);
    }

    /** The edit that undo (or redo) would take back for this person. */
    public static function next(Scene $scene, User $user, string $way): ?Edit
    {
        $mine = $scene->edits()->where('user_id', $user->id)->where('undone', false);
        if ($way === 'undo') {
            return $mine->whereIn('kind', ['do', 'redo'])->orderByDesc('id')->first();
        }
        // A redo is open while nothing new was done after the undo.
        $undo = (clone $mine)->where('kind', 'undo')->orderByDesc('id')->first();
        $later = $undo === null ? null : (clone $mine)->where('kind', 'do')->where('id', '>', $undo->id)->exists();

        return $later === false ? $undo : null;
    }

    /** @return array{Edit, CompiledScene} */
    private function turnBack(Scene $scene, User $user, string $way, ?string $call): array
    {
        return DB::transaction(function () use ($scene, $user, $way, $call): array {
            $scene = $this->locked($scene);
            $before = $this->answered($scene, $user, $call, $way);
            if ($before !== null) {
                return $before;
            }
            $edit = self::next($scene, $user, $way)
                ?? throw new UserError("edit.nothing-to-{$way}", "There is nothing to {$way}.", 'Go on working.', 409);

            /** @var list<Change> $changes */
            $changes = $edit->row_changes;
            $rows = new Recorder;
            if (! $rows->stillAsLeft($changes)) {
                throw new UserError(
                    'edit.changed-since',
                    "\"{$edit->label}\" cannot be taken back: someone changed the same thing after it.",
                    'Change it by hand, or ask them to undo first.',
                    409,
                );
            }
            $rows->revert($changes);
            $edit->update(['undone' => true]);
            $context = new EditContext($scene, $rows, $this->stream, $this->assets);

            return $this->journal($scene, $user, $way, $edit->label, [], $rows, $context->compiled(), $edit->id, $call);
        }, 3);
    }

    /**
     * What the call was answered when it came the first time. The scene is locked, so of two at once the second waits for the first.
     *
     * @return array{Edit, CompiledScene}|null
     */
    private function answered(Scene $scene, ?User $user, ?string $call, string $kind): ?array
    {
        $edit = $call === null ? null : $scene->edits()->where('call_id', $call)->first();
        if ($edit === null) {
            return null;
        }
        if ($edit->user_id !== $user?->id || $edit->kind !== $kind) {
            throw new UserError('edit.call', 'Another call had this name already.', 'Give each call a name of its own.', 409);
        }

        return [$edit, $this->stream->compile($scene)];
    }

    /** @return array{EditCommand, array<string, mixed>} */
    private function check(mixed $command, int $n): array
    {
        if (! is_array($command) || ! is_string($command['do'] ?? null)) {
            throw new UserError('edit.shape', "Command {$n} has no name; \"do\" says what to do.", 'Give each command a "do".');
        }
        $kind = CommandList::get(mb_substr(mb_scrub($command['do']), 0, 60));
        array_walk_recursive($command, static function (mixed $value, int|string $field) use ($n): void {
            if (is_float($value) && ! is_finite($value) || is_float($value) && abs($value) > 1e12) {
                throw new UserError(
                    'edit.input',
                    sprintf(
                        'Command %d: the number at "%s" is too large to be computed with.',
                        $n,
                        mb_substr(mb_scrub((string) $field), 0, 40),
                    ),
                    'Give a number within a thousand billion; nothing was changed.',
                );
            }
        });
        $this->refuseUnknown($command, $kind, $n);
        $this->refuseEmpty($command, $kind, $n);
        $validator = Validator::make($command, $kind->rules());
        if ($validator->fails()) {
            throw new UserError(
                'edit.input',
                "Command {$n} ({$kind->name()}): ".$validator->errors()->first(),
                'Correct it and send it again; nothing was changed.',
            );
        }

        /** @var array<string, mixed> $in */
        $in = $validator->validated();

        return [$kind, $in + (isset($command['as']) ? ['as' => $command['as']] : [])];
    }

    /**
     * What no rule names would be written into the journal and do nothing.
     *
     * @param  array<array-key, mixed>  $command
     */
    private function refuseUnknown(array $command, EditCommand $kind, int $n): void
    {
        $known = array_map(static fn (string $rule): string => explode('.', $rule)[0], array_keys($kind->rules()));
        foreach (array_keys($command) as $field) {
            if (! in_array($field, [...$known, 'do', 'as'], true)) {
                throw new UserError(
                    'edit.input',
                    sprintf('Command %d (%s): there is no field "%s".', $n, $kind->name(), mb_substr(mb_scrub((string) $field), 0, 40)),
                    'It takes '.implode(', ', array_values(array_unique($known))).'; nothing was changed.',
                );
            }
        }
    }

    /**
     * The validator passes empty texts by; a number or a choice cannot be one.
     *
     * @param  array<array-key, mixed>  $command
     */
    private function refuseEmpty(array $command, EditCommand $kind, int $n): void
    {
        foreach ($kind->rules() as $field => $rule) {
            $rule = is_array($rule) ? implode('|', array_filter($rule, is_string(...))) : $rule;
            if (($command[$field] ?? null) === '' && preg_match('/(^|\|)(integer|numeric|boolean|array|in:)/', $rule) === 1) {
                throw new UserError(
                    'edit.input',
                    "Command {$n} ({$kind->name()}): {$field} is empty.",
                    'Give it a value, or leave it out; nothing was changed.',
                );
            }
        }
    }

    private function locked(Scene $scene): Scene
    {
        return Scene::query()->with('production')->lockForUpdate()->findOrFail($scene->id);
    }

    /** @param  list<Change>  $changes */
    private function refuseConflict(Scene $scene, ?int $base, array $changes): void
    {
        if ($base === null || $base >= $scene->revision) {
            return;
        }
        $theirs = [];
        foreach ($scene->edits()->where('revision', '>', $base)->orderBy('revision')->get() as $edit) {
            foreach ($edit->row_changes as $c) {
                $theirs["{$c['table']} {$c['id']}"] = $edit->label;
            }
        }
        foreach ($changes as $c) {
            $key = "{$c['table']} {$c['id']}";
            if (isset($theirs[$key])) {
                throw new UserError(
                    'edit.conflict',
                    "Someone else changed the same thing in the meantime (\"{$theirs[$key]}\").",
                    'Look at their change, then make yours again or leave theirs.',
                    409,
                );
            }
        }
    }

    /** What lies so far away was typed by mistake, and would cost all who look at the scene. */
    private function refuseLong(CompiledScene $compiled): void
    {
        $seconds = $compiled->frames * $compiled->document->rate->den / $compiled->document->rate->num;
        if ($seconds > self::MOST_SECONDS) {
            throw new UserError(
                'edit.length',
                sprintf(
                    'The scene would last until frame %s; two hours (%s frames here) are the longest.',
                    number_format($compiled->frames),
                    number_format(self::MOST_SECONDS * $compiled->document->rate->num / $compiled->document->rate->den),
                ),
                'Give an earlier frame, or go on in another scene; nothing was changed.',
            );
        }
    }

    /**
     * @param  list<mixed>  $commands
     * @return array{Edit, CompiledScene}
     */
    private function journal(
        Scene $scene, ?User $user, string $kind, string $label, array $commands, Recorder $rows, CompiledScene $compiled,
        ?int $reverts = null, ?string $call = null,
    ): array {
        Scene::query()->whereKey($scene->id)->update(['revision' => $scene->revision + 1, 'updated_at' => now()]);
        $edit = Edit::query()->create([
            'scene_id' => $scene->id, 'user_id' => $user?->id, 'revision' => $scene->revision + 1, 'kind' => $kind,
            'reverts_id' => $reverts, 'call_id' => $call,
            'label' => mb_substr($label, 0, 160), 'commands' => $commands, 'row_changes' => $rows->changes(), 'made_at' => now(),
            // What has changed nothing is no step back, and takes no step forward away.
            'undone' => $kind === 'do' && $rows->changes() === [],
        ]);

        return [$edit, $compiled];
    }
}
