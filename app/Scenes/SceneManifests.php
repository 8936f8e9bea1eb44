<?php

declare(strict_types=1);

namespace App\Scenes;

use App\Models\AssetVersion;
use App\Models\Scene;
use Closure;
use CrispReel\Core\Bake\PoseStream;
use CrispReel\Core\Compile\CompiledScene;
use CrispReel\Core\Document\Document;
use Illuminate\Contracts\Cache\Lock;
use Illuminate\Contracts\Cache\LockTimeoutException;
use Illuminate\Support\Facades\Cache;

/**
 * Manifest and poses of a scene's last revisions: each computed once, whoever asks, and kept while others still ask for them.
 * A block is given only to who asks through a scene that has it.
 *
 * @phpstan-type Recent array{name: string, blocks: list<string>}
 */
final class SceneManifests
{
    /** Revisions, and names of blocks in all of them, that are remembered. */
    private const KEPT = 40;

    private const KEPT_BLOCKS = 20_000;

    private const MINUTES = 30;

    /** @var array<int, list<Recent>> of the scene that was asked for last, for the length of a call */
    private array $remembered = [];

    /** @var array<string, CompiledScene> the state that was settled last, by its name */
    private array $settled = [];

    public function __construct(private readonly SceneStream $stream)
    {
    }

    /** @return array<string, mixed> what the workspace draws: where an asset has a lighter copy, that one; renders take the whole */
    public function of(Scene $scene, ?CompiledScene $compiled = null): array
    {
        $document = $compiled->document ?? DocumentBuilder::build($scene);
        $light = $this->light($document);
        $json = $document->toJson();
        $name = hash('sha256', PoseStream::NAMES." {$scene->id} {$json}".json_encode($light, JSON_THROW_ON_ERROR));

        $kept = $this->kept("manifest.{$name}");
        if ($kept !== null) {
            $this->recall($scene, $name, $kept);

            return $kept;
        }

        return $this->alone("settle.{$scene->id}", function () use ($scene, $document, $compiled, $light, $json, $name): array {
            $kept = $this->kept("manifest.{$name}");
            if ($kept !== null) {
                return $kept;
            }
            $manifest = $this->stream->manifest($compiled ?? $this->stream->compileDocument($document), $light);
            // As the page gets it, whether it was just made or is taken from where it is kept.
            $text = json_encode($manifest, JSON_THROW_ON_ERROR | JSON_PRESERVE_ZERO_FRACTION);
            Cache::put("manifest.{$name}", $text, now()->addMinutes(self::MINUTES));
            Cache::put("document.{$name}", $json, now()->addMinutes(self::MINUTES));

            /** @var list<string> $blocks */
            $blocks = $manifest['blocks'];
            $this->remember($scene, $name, $blocks);

            return $manifest;
        });
    }

    /**
     * A state that comes back (an undo, long after) is among the last ones again.
     *
     * @param  array<string, mixed>  $manifest
     */
    private function recall(Scene $scene, string $name, array $manifest): void
    {
        if (! in_array($name, array_column($this->recent($scene), 'name'), true)) {
            /** @var list<string> $blocks */
            $blocks = $manifest['blocks'];
            $this->alone("settle.{$scene->id}", fn () => $this->remember($scene, $name, $blocks));
        }
    }

    /** Block $n by its name, of one of the scene's last revisions; null: none of them has it. */
    public function block(Scene $scene, int $n, string $hash): ?string
    {
        $recent = $this->having($scene, $n, $hash);
        if ($recent === null) {
            // Nobody has asked for the manifest for long, or its memory is gone: the present one counts.
            $this->remembered = [];
            $this->of($scene);
            $recent = $this->having($scene, $n, $hash);
        }

        return $recent === null ? null : $this->stream->kept($hash) ?? $this->alone(
            "bake.{$recent['name']}",
            fn (): ?string => $this->stream->kept($hash) ?? $this->baked($scene, $recent, $n, $hash),
        );
    }

    /**
     * Where the block lies on the store's disk, when it is there and one of the scene's last revisions has it: then nobody
     * has to read it here.
     */
    public function place(Scene $scene, int $n, string $hash): ?string
    {
        return $this->having($scene, $n, $hash) === null ? null : $this->stream->place($hash);
    }

    /** @param  Recent  $recent */
    private function baked(Scene $scene, array $recent, int $n, string $hash): ?string
    {
        return $this->stream->block($this->settled($scene, $recent['name']), $n, $hash);
    }

    /** The state of that name, settled once for all blocks of a call. */
    private function settled(Scene $scene, string $name): CompiledScene
    {
        if (! isset($this->settled[$name])) {
            $json = Cache::get("document.{$name}");
            $settled = is_string($json) ? $this->stream->compileDocument(Document::fromJson($json)) : $this->stream->compile($scene);
            $this->settled = [$name => $settled];
        }

        return $this->settled[$name];
    }

    /** @return Recent|null */
    private function having(Scene $scene, int $n, string $hash): ?array
    {
        foreach ($this->recent($scene) as $r) {
            if (($r['blocks'][$n] ?? null) === $hash) {
                return $r;
            }
        }

        return null;
    }

    /** @return list<Recent> newest first */
    private function recent(Scene $scene): array
    {
        /** @var list<Recent> $recent */
        $recent = $this->remembered[$scene->id] ?? Cache::get("recent.{$scene->id}", []);
        $this->remembered = [$scene->id => $recent];

        return $recent;
    }

    /** @param  list<string>  $blocks */
    private function remember(Scene $scene, string $name, array $blocks): void
    {
        $this->remembered = [];
        $all = [
            ['name' => $name, 'blocks' => $blocks],
            ...array_filter($this->recent($scene), static fn (array $r): bool => $r['name'] !== $name),
        ];
        $out = [];
        $count = 0;
        foreach ($all as $i => $r) {
            $count += count($r['blocks']);
            if ($i < 2 || ($i < self::KEPT && $count <= self::KEPT_BLOCKS)) {
                $out[] = $r;
            }
        }
        $this->remembered = [];
        Cache::put("recent.{$scene->id}", $out, now()->addMinutes(self::MINUTES));
    }

    /**
     * @phpstan-impure
     *
     * @return array<string, mixed>|null
     */
    private function kept(string $key): ?array
    {
        $text = Cache::get($key);
        $manifest = is_string($text) ? json_decode($text, true) : null;
        if (! is_array($manifest)) {
            return null;
        }
        // An empty object comes back as an empty list.
        $manifest['beats'] = (object) $manifest['beats'];

        /** @var array<string, mixed> $manifest */
        return $manifest;
    }

    /**
     * One at a time; the others wait for what the first one makes.
     *
     * @template T
     *
     * @param  Closure(): T  $work
     * @return T
     */
    private function alone(string $key, Closure $work): mixed
    {
        $lock = Cache::lock($key, 30);
        try {
            $lock->block(20);
        } catch (LockTimeoutException) {
            // Whoever has it hangs: rather twice than never.
            $lock = null;
        }
        try {
            return $work();
        } finally {
            if ($lock instanceof Lock) {
                $lock->release();
            }
        }
    }

    /** @return array<string, string> lighter copies by the blob that they stand for */
    private function light(Document $document): array
    {
        $blobs = array_map(static fn ($a): string => $a->blob, array_values($document->assets));

        /** @var array<string, string> $light */
        $light = AssetVersion::query()->whereIn('blob', $blobs)->whereNotNull('light')->orderBy('id')->pluck('light', 'blob')->all();

        return $light;
    }
}
