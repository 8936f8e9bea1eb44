<?php

declare(strict_types=1);

namespace App\Edits;

use App\Assets\StoredAssets;
use App\Edits\Commands\ReelLay;
use App\Exceptions\UserError;
use App\Models\Edit;
use App\Models\Scene;
use App\Models\User;
use App\Scenes\DocumentBuilder;
use App\Scenes\SceneManifests;
use App\Scenes\SceneStream;
use App\Speech\Readings;
use Closure;
use Illuminate\Support\Facades\DB;

/**
 * Runs edit commands on a scene: all or nothing, journalled, checked by settling the whole scene.
 *
 * @phpstan-import-type Change from Recorder
 */
final class EditRunner
{
    /** Two hours. */
    private const MOST_SECONDS = 7200;

    /** Rehearsals until an edit is done under the lock, come what may. */
    private const TRIES = 4;

    public function __construct(
        private readonly SceneStream $stream,
        private readonly StoredAssets $assets,
        private readonly SceneManifests $manifests,
    ) {
    }

    /**
     * @param  list<mixed>  $commands
     * @param  int|null  $base  the revision the person saw; null: the present one
     * @param  string|null  $call  the call's own name (UUID): the same name again gives the first answer and changes nothing
     * @return array{Edit, array<string, mixed>}
     */
    public function run(Scene $scene, ?User $user, array $commands, ?int $base = null, ?string $call = null): array
    {
        $checked = CommandCheck::all($commands);

        return $this->carryOut($scene, $user, 'do', $call, function (Scene $scene) use ($checked, $commands, $base): Rehearsal {
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

            return $this->rehearsal($scene, self::label($labels, $checked[count($checked) - 1][0]), array_values($commands), $rows);
        });
    }

    /** @return array{Edit, array<string, mixed>} */
    public function undo(Scene $scene, User $user, ?string $call = null): array
    {
        return $this->turnBack($scene, $user, 'undo', $call);
    }

    /** @return array{Edit, array<string, mixed>} */
    public function redo(Scene $scene, User $user, ?string $call = null): array
    {
        return $this->turnBack($scene, $user, 'redo', $call);
    }

    /** The edit that undo (or redo) would take back for this person. */
    public static function next(Scene $scene, User $user, string $way): ?Edit
    {
        // Without what they did: that may be megabytes, and is read of the one that counts.
        $mine = $scene->edits()->select(['id', 'scene_id', 'part_of_id', 'kind', 'label'])
            ->where('user_id', $user->id)->where('undone', false);
        if ($way === 'undo') {
            return $mine->whereIn('kind', ['do', 'redo'])->orderByDesc('id')->first();
        }
        // A redo is open while nothing new was done after the undo.
        $undo = (clone $mine)->where('kind', 'undo')->orderByDesc('id')->first();
        $later = $undo === null ? null : (clone $mine)->where('kind', 'do')->where('id', '>', $undo->id)->exists();

        return $later === false ? $undo : null;
    }

    /** @return array{Edit, array<string, mixed>} */
    private function turnBack(Scene $scene, User $user, string $way, ?string $call): array
    {
        return $this->carryOut($scene, $user, $way, $call, function (Scene $scene) use ($user, $way): Rehearsal {
            $edit = self::next($scene, $user, $way)?->refresh()->whole()
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

            return $this->rehearsal($scene, $edit->label, [], $rows, $edit->id);
        });
    }

    /**
     * What was done, for the history: a whole cut by what it lays on the reel, anything else by what came first.
     *
     * @param  non-empty-list<string>  $labels
     */
    private static function label(array $labels, EditCommand $last): string
    {
        $more = count($labels) - 1;

        return match (true) {
            $last instanceof ReelLay => $labels[$more],
            $more > 0 => "{$labels[0]} and {$more} more",
            default => $labels[0],
        };
    }

    /** @param  list<mixed>  $commands */
    private function rehearsal(Scene $scene, string $label, array $commands, Recorder $rows, ?int $reverts = null): Rehearsal
    {
        $revisions = Scene::query()->whereKey(Journal::scenes($scene, $rows->changes()))->pluck('revision', 'id');

        /** @var array<int, int> $revisions */
        $revisions = $revisions->sortKeys()->all();

        return new Rehearsal(
            $revisions, $label, $commands, $rows->changes(), DocumentBuilder::build($scene->refresh()), $reverts, Readings::wishes($scene),
        );
    }

    /**
     * An edit in two steps, so that no row is held while a scene is settled. First it is rehearsed: done, looked at and rolled
     * back. What came of it is settled, which may refuse it. Then, with the scene locked, the rows are put as the rehearsal left
     * them, if the scene is still at the revision that it was rehearsed on; else it is rehearsed anew, the last time under the lock.
     *
     * @param  Closure(Scene): Rehearsal  $rehearse
     * @return array{Edit, array<string, mixed>} the edit and the manifest after it
     */
    private function carryOut(Scene $scene, ?User $user, string $kind, ?string $call, Closure $rehearse): array
    {
        $answer = $this->done($scene, $user, $kind, $call, $rehearse);
        // What voices are to read now is asked for, and not waited for.
        Readings::ask($scene, $user?->id);

        return $answer;
    }

    /**
     * @param  Closure(Scene): Rehearsal  $rehearse
     * @return array{Edit, array<string, mixed>}
     */
    private function done(Scene $scene, ?User $user, string $kind, ?string $call, Closure $rehearse): array
    {
        for ($try = 1; $try < self::TRIES; $try++) {
            $done = $this->rolledBack(fn (): Edit|Rehearsal => $this->answered($locked = $this->locked($scene), $user, $call, $kind)
                ?? $rehearse($locked));
            if ($done instanceof Edit) {
                return [$done, $this->manifests->of($scene->refresh())];
            }
            // Voices read while it is settled.
            $asked = Readings::askFor($scene->id, $done->wishes, $user?->id, true);
            $manifest = $this->settled($scene, $done);
            $edit = DB::transaction(fn (): ?Edit => $this->committed($scene, $user, $kind, $call, $done), 3);
            if ($edit !== null) {
                // Read in the meantime: then it need not be settled once more for it.
                $isRead = $asked > 0 && Readings::areRead($done->wishes);

                return [$edit, $isRead ? $this->manifests->of($scene->refresh()) : $manifest];
            }
        }

        return DB::transaction(function () use ($scene, $user, $kind, $call, $rehearse): array {
            $scene = $this->locked($scene);
            $before = $this->answered($scene, $user, $call, $kind);
            if ($before !== null) {
                return [$before, $this->manifests->of($scene)];
            }
            $done = $rehearse($scene);

            $manifest = $this->settled($scene, $done);

            return [Journal::write($scene, $done->revisions, $user, $kind, $call, $done), $manifest];
        }, 3);
    }

    /**
     * @template T
     *
     * @param  Closure(): T  $work
     * @return T
     */
    private function rolledBack(Closure $work): mixed
    {
        DB::beginTransaction();
        try {
            return $work();
        } finally {
            DB::rollBack();
        }
    }

    /** @return array<string, mixed> the manifest */
    private function settled(Scene $scene, Rehearsal $done): array
    {
        $manifest = $this->manifests->settle($scene, $done->document);
        $this->refuseLong((int) $manifest['frames'], $done->document->rate->perSecond());

        return $manifest;
    }

    /** Null: somebody was faster. */
    private function committed(Scene $scene, ?User $user, string $kind, ?string $call, Rehearsal $done): ?Edit
    {
        // All of them, in the same order whoever locks them.
        $revisions = Scene::query()->whereKey(array_keys($done->revisions))->orderBy('id')->lockForUpdate()->pluck('revision', 'id')->all();
        $before = $this->answered($scene, $user, $call, $kind);
        if ($before !== null || $revisions !== $done->revisions) {
            return $before;
        }
        (new Recorder)->repeat($done->changes);

        return Journal::write($scene, $done->revisions, $user, $kind, $call, $done);
    }

    /** What the call was answered when it came the first time. The scene is locked, so of two at once the second waits for the first. */
    private function answered(Scene $scene, ?User $user, ?string $call, string $kind): ?Edit
    {
        $edit = $call === null ? null : $scene->edits()->where('call_id', $call)->first();
        if ($edit !== null && ($edit->user_id !== $user?->id || $edit->kind !== $kind)) {
            throw new UserError('edit.call', 'Another call had this name already.', 'Give each call a name of its own.', 409);
        }

        return $edit;
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
    private function refuseLong(int $frames, float $rate): void
    {
        if ($frames / $rate > self::MOST_SECONDS) {
            throw new UserError(
                'edit.length',
                sprintf(
                    'The scene would last until frame %s; two hours (%s frames here) are the longest.',
                    number_format($frames),
                    number_format(self::MOST_SECONDS * $rate),
                ),
                'Give an earlier frame, or go on in another scene; nothing was changed.',
            );
        }
    }
}
