<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Assets\BlobStore;
use App\Assets\KitShelf;
use App\Assets\PreviewMaker;
use App\Models\Asset;
use App\Models\AssetVersion;
use App\Models\Production;
use App\Models\User;
use App\Policies\Access;
use App\Scenes\PieceStore;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\Response;

/** Turntables of kit assets. */
final class PreviewController
{
    public function __construct(
        private readonly PreviewMaker $previews,
        private readonly BlobStore $blobs,
        private readonly PieceStore $pieces,
    ) {
    }

    /** An asset, or a motion on the figure named by `on`. */
    public function show(Request $request, Production $production): JsonResponse
    {
        $user = $this->user($request);
        Access::see($user, $production);
        $version = $this->version($user, $production, (int) $request->query('asset', '0'));
        if ($version->asset->kind !== 'motion') {
            return response()->json(['manifest' => $this->previews->of(
                $user,
                PreviewMaker::thing($version),
                null,
                $request->boolean('beside'),
                lifted: true,
            )]);
        }
        $on = (int) $request->query('on', '0');
        $figure = $on > 0
            ? $this->version($user, $production, $on)
            : PreviewMaker::comesWith($version) ?? PreviewMaker::house('oda-ferrant');
        abort_if($figure === null || $figure->asset->kind !== 'performer', 404);

        return response()->json(['manifest' => $this->previews->of($user, PreviewMaker::thing($figure), $version)]);
    }

    public function pieces(Request $request): Response
    {
        $asked = SceneController::asked($request);
        $user = $this->user($request);
        $found = array_map(function (array $names) use ($user): array {
            $its = array_values(array_filter($names, static fn (string $name): bool => PreviewMaker::may($user, $name)));

            return array_filter(array_combine($its, array_map($this->pieces->get(...), $its)), is_string(...));
        }, $asked);

        return SceneController::packed($asked, $found);
    }

    public function blob(Request $request, string $hash): Response
    {
        abort_unless(preg_match('/^[0-9a-f]{64}$/', $hash) === 1 && PreviewMaker::may($this->user($request), $hash), 404);

        return AssetController::file($this->blobs, $hash);
    }

    private function version(User $user, Production $production, int $asset): AssetVersion
    {
        $found = Asset::query()->findOrFail($asset);
        abort_unless(KitShelf::isVisible($production, $found, $user), 404);

        return $found
            ->versions()->with('asset')->orderByDesc('number')->firstOrFail();
    }

    private function user(Request $request): User
    {
        /** @var User $user */
        $user = $request->user();

        return $user;
    }
}
