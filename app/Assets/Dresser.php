<?php

declare(strict_types=1);

namespace App\Assets;

use CrispReel\Core\Compile\Memory;
use CrispReel\Core\Document\AssetSource;
use CrispReel\Core\Document\Wish;
use CrispReel\Core\Format\Gltf\GltfDraft;
use CrispReel\Core\Surfaces\Dress;
use CrispReel\Core\Surfaces\SurfaceList;
use CrispReel\Core\Surfaces\Variants;
use Illuminate\Support\Facades\DB;

/**
 * Files with other surfaces, each made once and kept; and what surfaces a file has.
 *
 * @phpstan-type Surface array{key: string, name: string, colour: string, picture: bool, share: float}
 */
final class Dresser
{
    /** Pixels along the longer side of a picture on a surface. */
    private const MOST_PIXELS = 2048;

    /** File by what was wished for: of a crowd in one coat only the first is asked after. */
    private readonly Memory $known;

    public function __construct(private readonly BlobStore $blobs, private readonly AssetSource $assets)
    {
        $this->known = new Memory(1000);
    }

    /**
     * The hash of the file with the surfaces that are wished for.
     *
     * @param  list<Wish>  $wishes
     */
    public function blob(string $source, array $wishes): string
    {
        if ($wishes === []) {
            return $source;
        }
        $key = hash(
            'sha256',
            json_encode([Dress::VERSION, $source, array_map(static fn (Wish $w): array => $w->toArray(), $wishes)], JSON_THROW_ON_ERROR),
        );

        return $this->known->of($key, function () use ($key, $source, $wishes): string {
            $made = DB::table('dressings')->where('key', $key)->value('blob');

            return is_string($made) ? $made : $this->dressed($key, $source, $wishes);
        });
    }

    /** @param  list<Wish>  $wishes */
    private function dressed(string $key, string $source, array $wishes): string
    {
        $blob = $this->blobs->put(Dress::glb($this->blobs->get($source), $wishes, $this->picture(...)));
        DB::table('dressings')->insertOrIgnore([
            'key' => $key, 'source' => $source, 'blob' => $blob,
            'pictures' => json_encode(
                array_values(array_unique(array_filter(array_map(static fn (Wish $w): ?string => $w->picture, $wishes)))),
                JSON_THROW_ON_ERROR,
            ),
        ]);

        return $blob;
    }

    /** @return list<list<string>> each way in which a dressed file was made: the file that it came from, then pictures */
    public static function origins(string $blob): array
    {
        $out = [];
        foreach (DB::table('dressings')->where('blob', $blob)->get(['source', 'pictures']) as $row) {
            $pictures = is_string($row->pictures) ? json_decode($row->pictures, true) : [];
            $out[] = array_values(array_filter([$row->source, ...(is_array($pictures) ? $pictures : [])], is_string(...)));
        }

        return $out;
    }

    /** @return list<Surface> the largest first, with a variant of the file on or as it came */
    public function surfaces(string $blob, ?string $variant = null): array
    {
        return $this->list($blob, $variant)['surfaces'];
    }

    /** @return list<array{name: string, colour: string, picture: bool}> sets of materials that the file offers */
    public function variants(string $blob): array
    {
        return $this->list($blob)['variants'];
    }

    /** @return array{surfaces: list<Surface>, variants: list<array{name: string, colour: string, picture: bool}>} */
    private function list(string $blob, ?string $variant = null): array
    {
        $key = hash('sha256', 'surfaces|'.Dress::VERSION."|{$blob}".($variant === null ? '' : "|{$variant}"));
        $kept = $this->assets->solved($key);
        if ($kept === null) {
            $draft = GltfDraft::open($this->blobs->get($blob));
            if ($variant !== null) {
                Variants::put($draft, $variant);
            }
            $kept = json_encode(
                ['surfaces' => SurfaceList::of($draft)->toArray(), 'variants' => Variants::of($draft)],
                JSON_THROW_ON_ERROR,
            );
            $this->assets->keep($key, $kept);
        }

        /** @var array{surfaces: list<Surface>, variants: list<array{name: string, colour: string, picture: bool}>} $list */
        $list = json_decode($kept, true, 8, JSON_THROW_ON_ERROR);

        return $list;
    }

    /** A picture as a model may carry it: PNG or JPEG, and no larger than is seen. */
    private function picture(string $hash): string
    {
        $bytes = $this->blobs->get($hash);
        $size = @getimagesizefromstring($bytes);
        $fits = $size !== false && max($size[0], $size[1]) <= self::MOST_PIXELS;
        if ($fits && (str_starts_with($bytes, "\x89PNG") || str_starts_with($bytes, "\xFF\xD8"))) {
            return $bytes;
        }
        $image = $size === false ? false : @imagecreatefromstring($bytes);
        if ($image === false || $size === false) {
            return $bytes;
        }
        $scale = min(1.0, self::MOST_PIXELS / max($size[0], $size[1]));
        $small = imagescale($image, max(1, (int) ($size[0] * $scale)), max(1, (int) ($size[1] * $scale)));
        ob_start();
        imagepng($small === false ? $image : $small);

        return (string) ob_get_clean();
    }
}
