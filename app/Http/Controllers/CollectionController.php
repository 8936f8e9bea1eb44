<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Assets\KitShelf;
use App\Assets\OwnCollection;
use App\Models\Asset;
use App\Models\Production;
use App\Models\User;
use App\Policies\Access;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;

/** What a person keeps at hand for all of their productions. */
final class CollectionController
{
    public function keep(Request $request, Production $production, Asset $asset, KitShelf $shelf): JsonResponse
    {
        $user = $this->seen($request, $production, $asset);
        OwnCollection::keep($user, $asset, $request->boolean('keep', true));

        return response()->json($shelf->whole($production, $asset, $user));
    }

    /** Makes it one of the production's own. */
    public function adopt(Request $request, Production $production, Asset $asset, KitShelf $shelf): JsonResponse
    {
        $user = $this->seen($request, $production, $asset);
        Access::change($user, $production);

        return response()->json($shelf->whole($production, OwnCollection::adopt($production, $asset), $user));
    }

    private function seen(Request $request, Production $production, Asset $asset): User
    {
        /** @var User $user */
        $user = $request->user();
        Access::see($user, $production);
        abort_unless(KitShelf::isVisible($production, $asset, $user), 404);

        return $user;
    }
}
