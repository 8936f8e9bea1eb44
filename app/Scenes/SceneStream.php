<?php

declare(strict_types=1);

namespace App\Scenes;

use App\Assets\BlobStore;
use App\Assets\Dresser;
use App\Models\Scene;
use CrispReel\Core\Bake\PoseStream;
use CrispReel\Core\Compile\CompiledScene;
use CrispReel\Core\Compile\SceneCompiler;
use CrispReel\Core\Document\AssetSource;
use CrispReel\Core\Document\Document;
use CrispReel\Core\Document\Moods;

/** What a drawing page needs of a scene: the manifest, and blocks by hash, computed when first asked for. */
final class SceneStream
{
    public function __construct(private readonly AssetSource $assets, private readonly BlobStore $blobs, private readonly Dresser $dresser)
    {
    }

    public function compile(Scene $scene): CompiledScene
    {
        return SceneCompiler::compile(DocumentBuilder::build($scene), $this->assets);
    }

    public function compileDocument(Document $document): CompiledScene
    {
        return SceneCompiler::compile($document, $this->assets);
    }

    /**
     * @param  array<string, string>  $light  lighter copies by the blob that they stand for
     * @return array<string, mixed>
     */
    public function manifest(CompiledScene $scene, array $light = []): array
    {
        $d = $scene->document;
        $blocks = PoseStream::hashes($scene);
        $beats = [];
        foreach ($scene->lanes as $lane) {
            foreach ([...$lane->segments, ...$lane->layers] as $s) {
                $beats[$s->beat] = [
                    'start' => $s->start, 'end' => round($s->end, 3), 'seconds' => round($s->table->seconds(), 4),
                    'loops' => $s->table->loops,
                ];
            }
        }

        return [
            'frames' => $scene->frames, 'rate' => [$d->rate->num, $d->rate->den], 'width' => $d->width, 'height' => $d->height,
            'mood' => $d->mood, 'look' => Moods::look($d->mood),
            'blockFrames' => PoseStream::BLOCK, 'blocks' => $blocks, 'beats' => (object) $beats,
            'assets' => array_values(array_map(
                static fn ($a): array => ['id' => $a->id, 'kind' => $a->kind, 'name' => $a->name, 'blob' => $a->blob],
                array_filter($d->assets, static fn ($a): bool => $a->kind !== 'motion'),
            )),
            'items' => array_values(array_map(fn ($i): array => [
                'id' => $i->id, 'kind' => $i->kind, 'name' => $i->name, 'tape' => $i->tape, 'cloth' => $i->cloth?->toArray(),
                'blob' => $this->dresser->blob($light[$d->assets[$i->asset]->blob] ?? $d->assets[$i->asset]->blob, $i->surfaces),
                'joints' => isset($scene->lanes[$i->id]) ? $scene->lanes[$i->id]->figure->skeleton->names : [],
                'jointNodes' => $this->assets->digest($d->assets[$i->asset])['jointNodes'] ?? [],
                'hips' => isset($scene->lanes[$i->id]) ? $scene->lanes[$i->id]->figure->hips : 0,
                'morphs' => isset($scene->lanes[$i->id]) ? $scene->lanes[$i->id]->figure->morphs : [],
                'mounts' => array_keys((array) ($this->assets->digest($d->assets[$i->asset])['mounts'] ?? [])),
                'extras' => $this->assets->digest($d->assets[$i->asset])['extras'] ?? [],
                'bounds' => $this->assets->digest($d->assets[$i->asset])['bounds'] ?? [[0, 0, 0], [0, 0, 0]],
            ], $d->items)),
            'cameras' => array_values(array_map(
                static fn ($c): array => ['id' => $c->id, 'letter' => $c->letter, 'name' => $c->name, 'sensorWidthMm' => $c->sensorWidthMm],
                $d->cameras,
            )),
            'shots' => array_map(static fn ($s): array => $s->toArray(), $scene->shots),
            'notes' => array_map(static fn ($n): array => $n->toArray(), $scene->notes),
        ];
    }

    /** Block $n if it still has that name; null when the scene has moved on. */
    public function block(CompiledScene $scene, int $n, string $hash): ?string
    {
        if ($n < 0 || $n >= PoseStream::blocks($scene) || PoseStream::hash($scene, $n) !== $hash) {
            return null;
        }
        $bytes = PoseStream::block($scene, $n);
        $this->blobs->whole(self::path($hash), $bytes);

        return $bytes;
    }

    /** @phpstan-impure */
    public function kept(string $hash): ?string
    {
        $disk = $this->blobs->disk();

        return $disk->exists(self::path($hash)) ? (string) $disk->get(self::path($hash)) : null;
    }

    /** Where on the disk, if it is kept. */
    public function place(string $hash): ?string
    {
        return $this->blobs->disk()->exists(self::path($hash)) ? self::path($hash) : null;
    }

    private static function path(string $hash): string
    {
        return 'blocks/'.substr($hash, 0, 2)."/{$hash}";
    }
}
