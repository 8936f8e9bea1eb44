<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Models\Scene;
use App\Models\User;
use App\Policies\Access;
use App\Scenes\FirstCuts;
use App\Scenes\SceneManifests;
use App\Scenes\SceneStream;
use App\Scenes\SetUpWish;
use CrispReel\Core\Reel\ShotList;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Str;

/** What a director may choose from: set-ups for whom is selected, and first cuts of an action. */
final class CoverController
{
    /** Set-ups for whom is selected, at a frame: what a camera would see, or why it cannot. */
    public function setUps(Request $request, Scene $scene, SceneManifests $manifests): JsonResponse
    {
        Access::see($this->user($request), $scene);

        return response()->json(['setUps' => $manifests->setUps($scene, SetUpWish::of($request->query()))]);
    }

    /** What cameras that know whom they film lose on the reel. */
    public function lookout(Request $request, Scene $scene, SceneManifests $manifests): JsonResponse
    {
        Access::see($this->user($request), $scene);

        return response()->json(['notes' => $manifests->lookout($scene)]);
    }

    /** First cuts of what people do in a span, in each style. */
    public function cuts(Request $request, Scene $scene, FirstCuts $cuts): JsonResponse
    {
        Access::see($this->user($request), $scene);
        $in = $request->validate([
            'people' => 'sometimes|array|max:50', 'people.*' => 'string|max:80', 'from' => 'sometimes|integer|between:0,1000000',
            'to' => 'sometimes|nullable|integer|between:0,1000000',
        ]);
        $people = array_values(array_filter((array) ($in['people'] ?? []), is_string(...)));

        return response()->json([
            'cuts' => $cuts->of($scene, $people, (int) ($in['from'] ?? 0), isset($in['to']) ? (int) $in['to'] : null),
        ]);
    }

    /** The reel as a list; as=csv gives a file for a spreadsheet. */
    public function shots(Request $request, Scene $scene, SceneStream $stream): JsonResponse|Response
    {
        Access::see($this->user($request), $scene);
        $compiled = $stream->compile($scene);
        if ($request->query('as') !== 'csv') {
            return response()->json(['shots' => ShotList::of($compiled)]);
        }
        $name = Str::slug($scene->name === '' ? 'scene' : $scene->name).'-shots.csv';

        return response(ShotList::csv($compiled), 200, [
            'Content-Type' => 'text/csv; charset=utf-8', 'Content-Disposition' => "attachment; filename=\"{$name}\"",
        ]);
    }

    private function user(Request $request): User
    {
        /** @var User $user */
        $user = $request->user();

        return $user;
    }
}
