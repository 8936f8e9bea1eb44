<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Assets\Dresser;
use App\Assets\KitShelf;
use App\Assets\StoryShelf;
use App\Models\Asset;
use App\Models\Item;
use App\Models\Scene;
use App\Models\User;
use App\Policies\Access;
use App\Scenes\DocumentBuilder;
use App\Scenes\ScenePlans;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;

/** What a scene is made of, and what it may use of the kit. */
final class SceneKitController
{
    private const PLANS_AT_ONCE = 24;

    /** The surfaces of what stands there, as its asset brought them (in the variant that it wears). */
    public function surfaces(Request $request, Scene $scene, Item $item, Dresser $dresser): JsonResponse
    {
        Access::see($this->user($request), $scene);
        abort_unless($item->scene_id === $scene->id, 404);
        $asset = DocumentBuilder::build($scene)->assets[DocumentBuilder::assetId($item)];

        return response()
            ->json(['surfaces' => $dresser->surfaces($asset->blob, $item->variant()), 'variants' => $dresser->variants($asset->blob)]);
    }

    /** Floor plans of files that the scene uses. */
    public function plans(Request $request, Scene $scene, ScenePlans $plans): JsonResponse
    {
        Access::see($this->user($request), $scene);
        $of = array_slice(array_filter(explode(',', (string) $request->query('of', ''))), 0, self::PLANS_AT_ONCE);

        return response()->json(['plans' => (object) $plans->of($scene, array_values($of))])
            ->header('Cache-Control', 'private, max-age=86400');
    }

    /** What the scene's story needs of the kit, line by line. */
    public function parts(Request $request, Scene $scene, StoryShelf $shelf): JsonResponse
    {
        Access::see($this->user($request), $scene);

        return response()->json($shelf->of($scene));
    }

    /** What the scene may use of the kit. Apart from the scene and kept by the browser: it is large, and rarely changes. */
    public function assets(Request $request, Scene $scene): JsonResponse
    {
        Access::see($this->user($request), $scene);
        $rows = Asset::query()->with('versions')
            ->where(static fn ($q) => $q->whereNull('production_id')->orWhere('production_id', $scene->production_id))
            ->whereNull('archived_at')->orderBy('id')->get()
            ->map(static fn (Asset $a): array => KitShelf::row($a, $a->versions->sortBy('number')->last()))->all();
        $answer = response()->json(['assets' => $rows]);
        $answer->setEtag(hash('sha256', (string) $answer->getContent()))->headers->set('Cache-Control', 'private, no-cache');
        $answer->isNotModified($request);

        return $answer;
    }

    private function user(Request $request): User
    {
        /** @var User $user */
        $user = $request->user();

        return $user;
    }
}
