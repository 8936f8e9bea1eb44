<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Assets\AssetIntake;
use App\Assets\KitShelf;
use App\Assets\RoleSheet;
use App\Assets\StoredAssets;
use App\Exceptions\UserError;
use App\Models\Asset;
use App\Models\AssetVersion;
use App\Models\Production;
use App\Models\User;
use App\Policies\Access;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\DB;

/** The kit room: shelves, and what is done to one asset. The house's own assets are for everyone and change for nobody. */
final class KitController
{
    public function __construct(private readonly KitShelf $shelf)
    {
    }

    public function index(Request $request, Production $production): JsonResponse
    {
        Access::see($this->user($request), $production);

        return response()->json($this->shelf->page($production, $request->query(), $this->user($request)));
    }

    public function show(Request $request, Production $production, Asset $asset): JsonResponse
    {
        $this->seen($request, $production, $asset);

        return response()->json($this->shelf->whole($production, $asset, $this->user($request)));
    }

    /** Name, tags, colour, folder, credit, licence. */
    public function update(Request $request, Production $production, Asset $asset): JsonResponse
    {
        $this->own($request, $production, $asset);
        $given = $request->validate([
            'name' => 'sometimes|string|min:1|max:110', 'tags' => 'sometimes|array|max:24', 'tags.*' => 'string|max:30',
            'colour' => 'sometimes|nullable|integer|min:0|max:7',
            'folder' => 'sometimes|nullable|string|max:80', 'credit' => 'sometimes|string|max:200',
            'licence' => 'sometimes|string|max:40', 'kind' => 'sometimes|in:performer,set,prop',
        ]);
        if (isset($given['kind']) && in_array($asset->kind, ['motion', 'sound', 'picture'], true)) {
            throw new UserError('kit.kind', "A {$asset->kind} stays a {$asset->kind}.", 'Bring in the file with its meshes.');
        }
        $asset->update($given);

        return response()->json($this->shelf->whole($production, $asset->refresh(), $this->user($request)));
    }

    /** Every use takes the other's newest version; beats, links, keys and names stay. */
    public function replace(Request $request, Production $production, Asset $asset): JsonResponse
    {
        $this->own($request, $production, $asset);
        $with = Asset::query()->find((int) $request->json('with'));
        if ($with === null || ! $this->isVisible($production, $with)) {
            throw new UserError('kit.unknown', 'There is no such asset in the kit.', 'Choose one from the shelf.', 404);
        }
        if ($with->kind !== $asset->kind) {
            throw new UserError('kit.kind', "A {$asset->kind} cannot become a {$with->kind}.", "Choose another {$asset->kind}.");
        }
        $this->copy($asset, $with->versions()->orderByDesc('number')->firstOrFail());

        return response()->json($this->shelf->whole($production, $asset->refresh(), $this->user($request)));
    }

    /** An earlier version becomes the newest again. */
    public function revert(Request $request, Production $production, Asset $asset): JsonResponse
    {
        $this->own($request, $production, $asset);
        $this->copy($asset, $asset->versions()->where('number', (int) $request->json('version'))->firstOrFail());

        return response()->json($this->shelf->whole($production, $asset->refresh(), $this->user($request)));
    }

    private function copy(Asset $asset, AssetVersion $from): void
    {
        DB::transaction(static fn () => $asset->versions()->create([
            'number' => (int) $asset->versions()->lockForUpdate()->max('number') + 1, 'blob' => $from->blob, 'digest' => $from->digest,
            'light' => $from->light, 'picture' => $from->picture, 'facts' => $from->facts, 'findings' => $from->findings,
        ]));
    }

    /** Which joints play which parts of a body. */
    public function roles(Request $request, Production $production, Asset $asset, StoredAssets $assets): JsonResponse
    {
        $this->seen($request, $production, $asset);

        return response()->json(RoleSheet::of($asset->versions()->with('asset')->orderByDesc('number')->firstOrFail(), $assets)->toArray());
    }

    /** Chooses joints by hand: `choices` of part to joint; an empty name takes the part away. */
    public function chooseRoles(
        Request $request, Production $production, Asset $asset, AssetIntake $intake, StoredAssets $assets,
    ): JsonResponse {
        $this->own($request, $production, $asset);

        /** @var array{choices: array<string, string|null>} $given */
        $given = $request->validate(['choices' => 'required|array|max:40', 'choices.*' => 'nullable|string|max:200']);
        $version = $intake->roles(
            $asset->versions()->with('asset')->orderByDesc('number')->firstOrFail(),
            array_map(strval(...), $given['choices']),
        );

        return response()->json(RoleSheet::of($version->load('asset'), $assets)->toArray());
    }

    public function archive(Request $request, Production $production, Asset $asset): JsonResponse
    {
        $this->own($request, $production, $asset);
        $asset->update(['archived_at' => $request->boolean('back') ? null : now()]);

        return response()->json($this->shelf->whole($production, $asset->refresh(), $this->user($request)));
    }

    /** Who made what and under which licence. */
    public function credits(Request $request, Production $production): JsonResponse
    {
        Access::see($this->user($request), $production);

        return response()->json(['credits' => $this->shelf->credits($production)]);
    }

    private function seen(Request $request, Production $production, Asset $asset): void
    {
        Access::see($this->user($request), $production);
        abort_unless(KitShelf::isVisible($production, $asset, $this->user($request)), 404);
    }

    private function isVisible(Production $production, Asset $asset): bool
    {
        return $asset->production_id === null || $asset->production_id === $production->id;
    }

    private function own(Request $request, Production $production, Asset $asset): void
    {
        Access::change($this->user($request), $production);
        abort_unless($this->isVisible($production, $asset), 404);
        if ($asset->production_id === null) {
            throw new UserError(
                'kit.house',
                "\"{$asset->name}\" belongs to the house kit, which is the same for everyone.",
                'Bring in a file of your own, or make a figure of your own.',
                403,
            );
        }
    }

    private function user(Request $request): User
    {
        /** @var User $user */
        $user = $request->user();

        return $user;
    }
}
