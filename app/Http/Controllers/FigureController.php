<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Assets\AssetIntake;
use App\Assets\BlobStore;
use App\Assets\KitShelf;
use App\Assets\PreviewMaker;
use App\Exceptions\UserError;
use App\Models\Asset;
use App\Models\Production;
use App\Models\User;
use App\Policies\Access;
use App\Renders\DrawPictures;
use CrispReel\Core\Format\Gltf\AssetDigest;
use CrispReel\Core\Format\Gltf\GltfReader;
use CrispReel\Core\Kit\Figure\FigureMaker;
use CrispReel\Core\Kit\Figure\FigureSpec;
use CrispReel\Core\Kit\Figure\HairMaker;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;

/** Figures of one's own, by sliders and by chance. */
final class FigureController
{
    /** Raise when the generator changes: figures are made anew. */
    private const VERSION = 1;

    public function __construct(
        private readonly BlobStore $blobs,
        private readonly PreviewMaker $previews,
        private readonly AssetIntake $intake,
    ) {
    }

    /** What there is to choose, and a figure to begin with: `like` an asset, or of a `seed`. */
    public function choices(Request $request, Production $production): JsonResponse
    {
        Access::see($this->user($request), $production);
        $like = (int) $request->query('like', '0');
        $spec = FigureSpec::random(self::seed($request->query('seed', '1')));
        if ($like > 0) {
            $asset = Asset::query()->where('id', $like)
                ->where(fn ($q) => $q->whereNull('production_id')->orWhere('production_id', $production->id))->firstOrFail();
            $digest = json_decode($this->blobs->get($asset->versions()->orderByDesc('number')->firstOrFail()->digest), true);
            $own = is_array($digest) && is_array($digest['extras'] ?? null) && is_array($digest['extras']['spec'] ?? null) ? $digest['extras']['spec'] : throw new UserError('figure.foreign', "\"{$asset->name}\" was not made by sliders.", 'Choose a figure of the house, or begin with a new one.');
            /** @var array<string, mixed> $own */
            $spec = FigureSpec::fromArray($own);
        }

        return response()->json([
            'spec' => $spec->toArray(), 'hair' => HairMaker::STYLES, 'hats' => HairMaker::HATS, 'tops' => FigureSpec::TOPS,
            'necks' => FigureSpec::NECKS, 'parts' => FigureSpec::PARTS,
        ]);
    }

    /** Any text is a seed; a number beyond what the machine counts to is folded. */
    private static function seed(mixed $given): int
    {
        $text = is_string($given) ? mb_substr($given, 0, 40) : '1';

        return ctype_digit($text) && strlen($text) < 10 ? max(1, (int) $text) : 1 + crc32($text) % 1_000_000_000;
    }

    public function preview(Request $request, Production $production): JsonResponse
    {
        $user = $this->user($request);
        Access::see($user, $production);
        $text = $request->query('spec');
        $given = is_string($text) ? json_decode($text, true) : null;

        return response()->json(['manifest' => $this->previews->of($user, $this->made($this->spec($given)))]);
    }

    public function store(Request $request, Production $production): JsonResponse
    {
        Access::change($this->user($request), $production);
        $spec = $this->spec($request->json('spec'));
        $made = $this->made($spec);
        $asset = $this->intake->asset(
            $production,
            'performer',
            $spec->name,
            ['person', 'figure', $spec->top, $spec->hair],
            'made in the kit room',
        );
        $asset->update(['credit' => $this->user($request)->name.' with the Crisp Reel kit', 'licence' => 'CC0-1.0']);
        $digest = json_decode($this->blobs->get($made['digest']), true, 512, JSON_THROW_ON_ERROR);
        assert(is_array($digest));

        /** @var array<string, mixed> $digest */
        $version = $this->intake->version($asset, $this->blobs->get($made['blob']), $digest);
        DrawPictures::dispatch()->onQueue('pictures');

        return response()->json(KitShelf::row($asset->refresh(), $version), 201);
    }

    private function spec(mixed $given): FigureSpec
    {
        if (! is_array($given)) {
            throw new UserError('figure.spec', 'The figure cannot be read.', 'Load the page again.');
        }

        /** @var array<string, mixed> $given */
        return FigureSpec::fromArray($given);
    }

    /** @return array{kind: string, name: string, blob: string, digest: string} made once for the same choices */
    private function made(FigureSpec $spec): array
    {
        $key = 'figures/'.hash('sha256', self::VERSION.json_encode($spec->toArray(), JSON_THROW_ON_ERROR)).'.json';
        $disk = $this->blobs->disk();
        $kept = $disk->exists($key) ? json_decode((string) $disk->get($key), true) : null;
        if (! is_array($kept) || ! is_string($kept['blob'] ?? null) || ! is_string($kept['digest'] ?? null)) {
            $glb = FigureMaker::glb($spec);
            $kept = [
                'blob' => $this->blobs->put($glb),
                'digest' => $this->blobs->put(json_encode(
                    AssetDigest::of(GltfReader::read($glb)),
                    JSON_THROW_ON_ERROR | JSON_PRESERVE_ZERO_FRACTION,
                )),
            ];
            $this->blobs->whole($key, json_encode($kept, JSON_THROW_ON_ERROR));
        }

        return ['kind' => 'performer', 'name' => $spec->name, 'blob' => $kept['blob'], 'digest' => $kept['digest']];
    }

    private function user(Request $request): User
    {
        /** @var User $user */
        $user = $request->user();

        return $user;
    }
}
