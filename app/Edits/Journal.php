<?php

declare(strict_types=1);

namespace App\Edits;

use App\Models\Edit;
use App\Models\Scene;
use App\Models\User;

/**
 * Writes edits down. One that reaches into several scenes of a production is written down in each, so that every page of them
 * is told; those in the others are parts of it, and are taken back with it.
 *
 * @phpstan-import-type Change from Recorder
 */
final class Journal
{
    /**
     * Scenes that changes reach into: those of the changed rows, and all of a production that itself is another now.
     *
     * @param  list<Change>  $changes
     * @return list<int> in order of their numbers
     */
    public static function scenes(Scene $scene, array $changes): array
    {
        $ids = [$scene->id];
        foreach ($changes as $c) {
            if ($c['table'] === 'productions') {
                array_push($ids, ...Scene::query()->where('production_id', $c['id'])->pluck('id')->all());
            }
            $ids[] = self::sceneOf($c, $scene->id);
        }
        $ids = array_values(array_unique($ids));
        sort($ids);

        return $ids;
    }

    /** @param  Change  $change */
    private static function sceneOf(array $change, int $else): int
    {
        $of = ($change['after'] ?? $change['before'])['scene_id'] ?? null;

        return is_numeric($of) ? (int) $of : $else;
    }

    /** @param  array<int, int>  $revisions  of the scenes that it reaches into, as they are */
    public static function write(Scene $scene, array $revisions, ?User $user, string $kind, ?string $call, Rehearsal $done): Edit
    {
        if ($done->reverts !== null) {
            Edit::query()->where('id', $done->reverts)->orWhere('part_of_id', $done->reverts)->update(['undone' => true]);
        }
        $row = [
            'user_id' => $user?->id, 'kind' => $kind, 'reverts_id' => $done->reverts, 'label' => mb_substr($done->label, 0, 160),
            'made_at' => now(),
        ];
        $edit = Edit::query()->create($row + [
            'scene_id' => $scene->id, 'revision' => $revisions[$scene->id] + 1, 'call_id' => $call, 'commands' => $done->commands,
            'row_changes' => $done->changes,
            // What has changed nothing is no step back, and takes no step forward away.
            'undone' => $kind === 'do' && $done->changes === [],
        ]);
        foreach ($revisions as $id => $revision) {
            Scene::query()->whereKey($id)->update(['revision' => $revision + 1, 'updated_at' => now()]);
            if ($id !== $scene->id) {
                $its = array_filter($done->changes, static fn (array $c): bool => self::sceneOf($c, 0) === $id);
                Edit::query()->create($row + [
                    'scene_id' => $id, 'revision' => $revision + 1, 'part_of_id' => $edit->id, 'commands' => [],
                    'row_changes' => array_values($its),
                ]);
            }
        }

        return $edit;
    }
}
