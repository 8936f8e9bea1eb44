<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Edits\EditRunner;
use App\Exceptions\UserError;
use App\Models\Edit;
use App\Models\Scene;
use App\Models\User;
use App\Policies\Access;
use App\Scenes\SceneManifests;
use App\Scenes\SceneRows;
use App\Speech\Readings;
use App\Speech\Wish;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Facades\Cache;

/** A scene as the workspace sees it: rows, manifest, poses, edits, and who else is there. */
final class SceneController
{
    private const PIECES_AT_ONCE = 240;

    public function __construct(private readonly SceneManifests $manifests, private readonly EditRunner $runner)
    {
    }

    public function show(Request $request, Scene $scene): JsonResponse
    {
        $user = $this->user($request);
        Access::see($user, $scene);
        $scene->load('production');

        return response()->json([
            'scene' => [
                'id' => $scene->id, 'name' => $scene->name, 'mood' => $scene->mood, 'story' => $scene->story, 'wind' => $scene->wind,
                'mix' => $scene->mix,
                'revision' => $scene->revision,
            ],
            'production' => [
                'id' => $scene->production->id, 'name' => $scene->production->name, 'role' => Access::role($user, $scene->production_id),
                'scenes' => $scene->production->scenes()->orderBy('id')->get(['id', 'name'])->toArray(),
            ],
            'rows' => SceneRows::all($scene), 'manifest' => self::told($this->manifests->of($scene)),
            'history' => $this->history($scene, $user),
        ]);
    }

    public function edit(Request $request, Scene $scene): JsonResponse
    {
        $user = $this->user($request);
        Access::change($user, $scene);
        $commands = $request->json('commands');
        $base = $request->json('base');
        [$edit, $manifest] = $this->runner->run(
            $scene,
            $user,
            is_array($commands) ? array_values($commands) : [],
            is_int($base) ? $base : null,
            $this->call($request),
        );

        return $this->answer($request, $scene, $user, $edit, $manifest);
    }

    public function undo(Request $request, Scene $scene): JsonResponse
    {
        return $this->turn($request, $scene, 'undo');
    }

    public function redo(Request $request, Scene $scene): JsonResponse
    {
        return $this->turn($request, $scene, 'redo');
    }

    private function turn(Request $request, Scene $scene, string $way): JsonResponse
    {
        $user = $this->user($request);
        Access::change($user, $scene);
        [$edit, $manifest] = $way === 'undo'
            ? $this->runner->undo($scene, $user, $this->call($request))
            : $this->runner->redo($scene, $user, $this->call($request));

        return $this->answer($request, $scene, $user, $edit, $manifest);
    }

    /** The call's own name: sent again with the same one, it counts once. */
    private function call(Request $request): ?string
    {
        $call = $request->json('call');
        if ($call !== null && (! is_string($call) || preg_match('/^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/i', $call) !== 1)) {
            throw new UserError(
                'edit.call',
                'The name of this call is no UUID.',
                'Name each call by a UUID of its own, or leave "call" out.',
            );
        }

        return is_string($call) ? strtolower($call) : null;
    }

    /** What changed since a revision, and who else has the scene open. */
    public function changes(Request $request, Scene $scene): JsonResponse
    {
        $user = $this->user($request);
        Access::see($user, $scene);
        $since = (int) $request->query('since', '0');
        $here = $this->present($scene, $user, (string) $request->query('window', ''));
        if ($since >= $scene->revision) {
            return response()->json(
                ($request->has('voices') ? $this->heard($scene, $user, $this->state($request->query('has'))) : [])
                    + ['revision' => $scene->revision, 'changes' => [], 'manifest' => null, 'here' => $here],
            );
        }

        return response()->json([
            'revision' => $scene->revision, 'changes' => $this->since($scene, $since),
            'manifest' => self::told($this->manifests->since($this->manifests->of($scene), $this->state($request->query('has')))),
            'history' => $this->history($scene, $user), 'here' => $here,
        ]);
    }

    /**
     * For a page that waits for voices: what they have read since, which is no edit; how many lines wait, and why some never come.
     *
     * @return array<string, mixed>
     */
    private function heard(Scene $scene, User $user, ?string $has): array
    {
        Readings::ask($scene, $user->id);
        $wishes = Readings::wishes($scene);
        $rows = Readings::rows($wishes);
        $problems = array_filter(array_map(static fn (Wish $w): ?string => $rows[$w->key]->problem ?? null, $wishes), is_string(...));
        $read = array_filter($wishes, static fn (Wish $w): bool => ($rows[$w->key]->sound ?? null) !== null);
        $manifest = $this->manifests->of($scene);

        return [
            'manifest' => $manifest['state'] === $has ? null : self::told($this->manifests->since($manifest, $has)),
            'voices' => ['waiting' => count($wishes) - count($read) - count($problems), 'problems' => (object) $problems],
        ];
    }

    /** What is drawn at present, whole: for a page that lost its place. */
    public function manifest(Request $request, Scene $scene): JsonResponse
    {
        Access::see($this->user($request), $scene);

        return response()->json(['manifest' => self::told($this->manifests->of($scene))]);
    }

    /**
     * Pieces of the pose stream in one answer, `of` "n:name,name;n:name": each its length in four bytes, little endian, and
     * then its bytes; all ones where it is gone.
     */
    public function pieces(Request $request, Scene $scene): Response
    {
        Access::see($this->user($request), $scene);
        $asked = self::asked($request);

        return self::packed($asked, $this->manifests->pieces($scene, $asked));
    }

    /** @return array<int, list<string>> names by the pieces' numbers */
    public static function asked(Request $request): array
    {
        $of = $request->query('of');
        $out = [];
        $count = 0;
        foreach (explode(';', is_string($of) ? $of : '') as $some) {
            abort_unless(preg_match('/^(\d{1,6}):([\w-]{22}(?:,[\w-]{22})*)$/', $some, $m) === 1, 404);
            $names = explode(',', $m[2]);
            $out[(int) $m[1]] = [...$out[(int) $m[1]] ?? [], ...$names];
            $count += count($names);
        }
        abort_if($count > self::PIECES_AT_ONCE, 404);

        return $out;
    }

    /**
     * @param  array<int, list<string>>  $asked
     * @param  array<int, array<string, string>>  $found
     */
    public static function packed(array $asked, array $found): Response
    {
        $out = '';
        foreach ($asked as $n => $names) {
            foreach ($names as $name) {
                $bytes = $found[$n][$name] ?? null;
                $out .= $bytes === null ? "\xFF\xFF\xFF\xFF" : pack('V', strlen($bytes)).$bytes;
            }
        }

        return response($out, 200, ['Content-Type' => 'application/octet-stream', 'Cache-Control' => 'no-store']);
    }

    /**
     * A list without entries is an object all the same.
     *
     * @param  array<string, mixed>  $manifest
     * @return array<string, mixed>
     */
    private static function told(array $manifest): array
    {
        return isset($manifest['beats']) ? ['beats' => (object) $manifest['beats']] + $manifest : $manifest;
    }

    /**
     * What the edit changed: rows, the part of the manifest that is another now, and the poses at the frame that is looked at.
     *
     * @param  array<string, mixed>  $manifest
     */
    private function answer(Request $request, Scene $scene, User $user, Edit $edit, array $manifest): JsonResponse
    {
        $base = $request->json('base');
        $behind = is_int($base) && $base < $edit->revision - 1;
        $has = $this->state($request->json('has'));
        $frame = $request->json('frame');

        return response()->json([
            'revision' => $edit->revision, 'label' => $edit->label, 'kind' => $edit->kind,
            'changes' => $behind ? $this->since($scene, $base) : SceneRows::changes($edit->row_changes, $edit->scene_id),
            'manifest' => self::told($this->manifests->since($manifest, $has)),
            'pieces' => (object) (is_int($frame) ? $this->manifests->inView($scene, $manifest, $has, $frame) : []),
            'history' => $this->history($scene, $user),
        ]);
    }

    /** The name of a state that a page has, if it says so. */
    private function state(mixed $has): ?string
    {
        return is_string($has) && preg_match('/^[0-9a-f]{64}$/', $has) === 1 ? $has : null;
    }

    /** @return list<array<string, mixed>> */
    private function since(Scene $scene, int $revision): array
    {
        $all = [];
        foreach ($scene->edits()->where('revision', '>', $revision)->orderBy('revision')->get() as $edit) {
            array_push($all, ...$edit->row_changes);
        }

        return SceneRows::changes($all, $scene->id);
    }

    /** @return array{undo: string|null, redo: string|null} */
    private function history(Scene $scene, User $user): array
    {
        return ['undo' => EditRunner::next($scene, $user, 'undo')?->label, 'redo' => EditRunner::next($scene, $user, 'redo')?->label];
    }

    /** @return list<string> names of others, and of this person's other windows */
    private function present(Scene $scene, User $user, string $window): array
    {
        $key = "here.{$scene->id}";
        $now = time();
        $seen = Cache::get($key, []);
        $seen = array_filter(is_array($seen) ? $seen : [], static fn (array $s): bool => $s[1] > $now - 8);
        $seen[mb_substr("{$user->id}.{$window}", 0, 60)] = [$user->name, $now];
        Cache::put($key, $seen, 60);
        unset($seen[mb_substr("{$user->id}.{$window}", 0, 60)]);

        return array_values(array_unique(array_column($seen, 0)));
    }

    private function user(Request $request): User
    {
        /** @var User $user */
        $user = $request->user();

        return $user;
    }
}
