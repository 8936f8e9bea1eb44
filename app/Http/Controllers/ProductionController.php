<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Edits\EditRunner;
use App\Exceptions\UserError;
use App\Models\Production;
use App\Models\Scene;
use App\Models\User;
use App\Policies\Access;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\DB;

final class ProductionController
{
    public function index(Request $request): JsonResponse
    {
        /** @var User $user */
        $user = $request->user();
        $list = Production::query()->whereHas('members', fn ($q) => $q->where('user_id', $user->id))
            ->with(['scenes' => fn ($q) => $q->orderBy('id'), 'members' => fn ($q) => $q->where('user_id', $user->id)])
            ->orderByDesc('updated_at')->orderByDesc('id')->get();

        return response()->json(['productions' => $list->map(static fn (Production $p): array => [
            'id' => $p->id, 'name' => $p->name, 'role' => $p->members->first()?->role, 'rate' => [$p->rate_num, $p->rate_den],
            'size' => [$p->width, $p->height],
            'scenes' => $p->scenes->map(static fn (Scene $s): array => [
                'id' => $s->id, 'name' => $s->name, 'mood' => $s->mood, 'changed' => $s->updated_at?->toIso8601String(),
            ])->all(),
        ])->all()]);
    }

    public function store(Request $request): JsonResponse
    {
        $in = $request->validate([
            'name' => 'required|string|min:1|max:120', 'rate' => 'sometimes|array|size:2', 'rate.*' => 'integer|min:1|max:240000',
        ]);

        /** @var User $user */
        $user = $request->user();
        $production = DB::transaction(static function () use ($in, $user): Production {
            $p = Production::query()->create([
                'name' => $in['name'], 'rate_num' => $in['rate'][0] ?? 24, 'rate_den' => $in['rate'][1] ?? 1, 'width' => 1280,
                'height' => 720,
            ]);
            $p->members()->create(['user_id' => $user->id, 'role' => 'owner']);
            $p->scenes()->create(['name' => 'Scene 1', 'mood' => 'dusk']);

            return $p;
        });

        return response()->json(['id' => $production->id, 'scene' => $production->scenes()->value('id')], 201);
    }

    public function storeScene(Request $request, Production $production): JsonResponse
    {
        /** @var User $user */
        $user = $request->user();
        Access::change($user, $production);
        $in = $request->validate(['name' => 'required|string|min:1|max:120|unique:scenes,name,NULL,id,production_id,'.$production->id]);
        $scene = $production->scenes()->create(['name' => $in['name'], 'mood' => 'dusk']);

        return response()->json(['id' => $scene->id], 201);
    }

    /** Frame rate and picture size, as one edit of all scenes: undo in any of them takes it back in all. */
    public function update(Request $request, Production $production, EditRunner $runner): JsonResponse
    {
        /** @var User $user */
        $user = $request->user();
        Access::change($user, $production);
        $in = $request->validate([
            'rate' => 'sometimes|array|size:2', 'rate.*' => 'integer', 'width' => 'sometimes|integer', 'height' => 'sometimes|integer',
        ]);
        $scene = $production->scenes()->orderBy('id')->first() ?? throw new UserError(
            'production.empty',
            'There is no scene in this production yet.',
            'Add a scene first.',
        );
        [$edit] = $runner->run($scene, $user, [['do' => 'production.set'] + $in]);

        return response()->json(['label' => $edit->label]);
    }

    public function destroy(Request $request, Production $production): JsonResponse
    {
        /** @var User $user */
        $user = $request->user();
        Access::see($user, $production);
        abort_unless(Access::role($user, $production->id) === 'owner', 403);
        $production->erase();

        return response()->json(['done' => true]);
    }
}
