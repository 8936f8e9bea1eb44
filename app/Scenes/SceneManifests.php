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
 * A piece is given only to who asks through a scene that has it.
 */
final class SceneManifests
{
    /** States that are remembered. */
    private const KEPT = 120;

    /** Pieces that come with the answer to an edit. */
    private const MOST_WITH_ANSWER = 60;

    private const MINUTES = 30;

    /** @var array<int, list<string>> of the scene that was asked for last, for the length of a call */
    private array $remembered = [];

    /** @var array<string, CompiledScene> the state that was settled last, by its name */
    private array $settled = [];

    /** @var array<string, array<mixed>> manifests that were just read, by key */
    private array $read = [];

    public function __construct(private readonly SceneStream $stream, private readonly WarmDesk $warm)
    {
    }

    /** @return array<string, mixed> what the workspace draws: where an asset has a lighter copy, that one; renders take the whole */
    public function of(Scene $scene): array
    {
        return $this->settle($scene, DocumentBuilder::build($scene));
    }

    /** @return array<string, mixed> the manifest of a state of a scene, whether its rows are like that yet or not */
    public function settle(Scene $scene, Document $document): array
    {
        $light = $this->light($document);
        $json = $document->toJson();
        $name = hash('sha256', PoseStream::NAMES." {$scene->id} {$json}".json_encode($light, JSON_THROW_ON_ERROR));
        $kept = $this->kept("manifest.{$name}");
        if ($kept !== null) {
            $this->recall($scene, $name);

            return $kept;
        }

        return $this->alone("settle.{$scene->id}", function () use ($scene, $document, $light, $json, $name): array {
            $kept = $this->kept("manifest.{$name}");
            if ($kept === null) {
                Cache::put("document.{$name}", $json, now()->addMinutes(self::MINUTES));
                $kept = ($this->warm->settle($name, $light) ? $this->kept("manifest.{$name}") : null)
                    ?? $this->settleHere($name, $document, $light);
                $this->remember($scene, $name);
            }

            return $kept;
        });
    }

    /**
     * Settles a state in this process and keeps its manifest for all.
     *
     * @param  array<string, string>  $light
     * @return array<string, mixed>
     */
    private function settleHere(string $name, Document $document, array $light): array
    {
        $this->settled = [$name => $this->stream->compileDocument($document)];

        /** @var array<string, mixed> as the page gets it, whether it was just made or is taken from where it is kept */
        return json_decode($this->keep($name, $this->stream->manifest($this->settled[$name], $light)), true, 64, JSON_THROW_ON_ERROR);
    }

    /**
     * @param  array<string, mixed>  $manifest
     * @return string as it is kept
     */
    public function keep(string $name, array $manifest): string
    {
        $text = json_encode(['state' => $name] + $manifest, JSON_THROW_ON_ERROR | JSON_PRESERVE_ZERO_FRACTION);
        Cache::put("manifest.{$name}", $text, now()->addMinutes(self::MINUTES));
        // Apart and short: who asks for a piece is looked for in all of the last states.
        $names = is_int($manifest['pieces'] ?? null) ? range(0, max(0, $manifest['pieces'] - 1)) : [];
        Cache::put(
            "names.{$name}",
            array_map(static fn (int $n): string => ' '.implode(' ', SceneStream::named($manifest, $n)).' ', $names),
            now()->addMinutes(self::MINUTES),
        );

        return $text;
    }

    /**
     * What has changed of a manifest since another state of the scene: things that stayed as they were by their ids alone. All
     * of it where nobody remembers that state.
     *
     * @param  array<string, mixed>  $manifest
     * @return array<string, mixed>
     */
    public function since(array $manifest, ?string $state): array
    {
        $before = $state === null || preg_match('/^[0-9a-f]{64}$/', $state) !== 1 ? null : $this->kept("manifest.{$state}");
        if ($before === null) {
            return $manifest;
        }
        $part = ['since' => $state, 'state' => $manifest['state']];
        foreach ($manifest as $key => $value) {
            if ($key === 'items' || $key === 'cameras') {
                $old = array_column($before[$key], null, 'id');
                $part[$key] = array_map(
                    static fn (array $one): array|string => ($old[$one['id']] ?? null) === $one ? $one['id'] : $one,
                    $value,
                );
            } elseif (($before[$key] ?? null) !== $value) {
                $part[$key] = $value;
            }
        }

        return $part;
    }

    /**
     * Pieces at a frame that another state did not have, in base 64: they come with the answer to an edit.
     *
     * @param  array<string, mixed>  $manifest
     * @return array<string, string>
     */
    public function inView(Scene $scene, array $manifest, ?string $state, int $frame): array
    {
        $n = intdiv(max(0, $frame), PoseStream::PIECE);
        $before = $state === null ? null : $this->kept("manifest.{$state}");
        $names = array_values(array_diff(
            SceneStream::named($manifest, $n),
            $before === null ? [] : SceneStream::named($before, $n),
        ));

        return $before === null || count($names) > self::MOST_WITH_ANSWER
            ? []
            : array_map(base64_encode(...), $this->pieces($scene, [$n => $names])[$n]);
    }

    /**
     * A state that comes back (an undo, long after) is among the last ones again.
     */
    private function recall(Scene $scene, string $name): void
    {
        if (! in_array($name, $this->recent($scene), true)) {
            $this->alone("settle.{$scene->id}", fn () => $this->remember($scene, $name));
        }
    }

    /**
     * Pieces by their names, of the scene's last states.
     *
     * @param  array<int, list<string>>  $asked  names by the pieces' numbers
     * @return array<int, array<string, string>> bytes of those that one of them has
     */
    public function pieces(Scene $scene, array $asked): array
    {
        $out = [];
        $isFresh = false;
        foreach ($asked as $n => $names) {
            $out[$n] = $this->found($scene, $n, $names);
            if (count($out[$n]) < count($names) && ! $isFresh) {
                // Nobody has asked for the manifest for long, or its memory is gone: the present one counts.
                $isFresh = true;
                $this->remembered = [];
                $this->of($scene);
                $out[$n] = $this->found($scene, $n, $names);
            }
        }

        return $out;
    }

    /**
     * Each from the newest state that has it.
     *
     * @param  list<string>  $names
     * @return array<string, string>
     */
    private function found(Scene $scene, int $n, array $names): array
    {
        $out = [];
        foreach ($names === [] ? [] : $this->recent($scene) as $state) {
            $of = Cache::get("names.{$state}");
            $all = is_array($of) && is_string($of[$n] ?? null) ? $of[$n] : '';
            $its = array_filter($names, static fn (string $name): bool => str_contains($all, " {$name} "));
            $out += $its === [] ? [] : $this->ofState($scene, $state, $n, array_values($its));
            $names = array_diff($names, $its);
            if ($names === []) {
                break;
            }
        }

        return $out;
    }

    /**
     * @param  list<string>  $names
     * @return array<string, string>
     */
    private function ofState(Scene $scene, string $state, int $n, array $names): array
    {
        $kept = $this->stream->kept($names);
        $missing = array_values(array_diff($names, array_keys($kept)));
        if ($missing === []) {
            return $kept;
        }
        $this->warm->bake($state, $n, $missing);

        return $kept + $this->stream->pieces($n, $missing, fn (): CompiledScene => $this->settled($scene, $state));
    }

    /** @return list<array<string, mixed>> what may be taken for whom is selected, in the scene as it is */
    public function setUps(Scene $scene, SetUpWish $wish): array
    {
        $state = $this->of($scene)['state'] ?? '';
        $state = is_string($state) ? $state : '';

        return $this->warm->setUps($state, $wish) ?? $this->stream->setUps($this->settled($scene, $state), $wish);
    }

    /** @return list<array<string, mixed>> what cameras that know whom they film lose on the reel; kept by the scene's state */
    public function lookout(Scene $scene): array
    {
        $state = $this->of($scene)['state'] ?? '';
        $state = is_string($state) ? $state : '';

        /** @var list<array<string, mixed>> */
        return Cache::remember(
            "lookout.{$state}", now()->addMinutes(self::MINUTES),
            fn (): array => $this->warm->lookout($state) ?? $this->stream->lookout($this->settled($scene, $state)),
        );
    }

    /** @return array{lines: array<string, mixed>, sounds: array<string, mixed>, noises: list<mixed>} where sounds are heard from */
    public function places(Scene $scene): array
    {
        $state = $this->of($scene)['state'] ?? '';
        $state = is_string($state) ? $state : '';

        /** @var array{lines: array<string, mixed>, sounds: array<string, mixed>, noises: list<mixed>} */
        return Cache::remember(
            "places.{$state}", now()->addMinutes(self::MINUTES), fn (): array => SoundManifest::places($this->settled($scene, $state)),
        );
    }

    /** The document of a state that was settled lately. */
    public static function document(string $name): ?Document
    {
        $json = Cache::get("document.{$name}");

        return is_string($json) ? Document::fromJson($json) : null;
    }

    /** The state of that name, settled once for all pieces of a call. */
    private function settled(Scene $scene, string $name): CompiledScene
    {
        if (! isset($this->settled[$name])) {
            $document = self::document($name);
            $this->settled = [
                $name => $document === null ? $this->stream->compile($scene) : $this->stream->compileDocument($document),
            ];
        }

        return $this->settled[$name];
    }

    /** @return list<string> names of states, newest first */
    private function recent(Scene $scene): array
    {
        /** @var list<string> $recent */
        $recent = $this->remembered[$scene->id] ?? Cache::get("recent.{$scene->id}", []);
        $this->remembered = [$scene->id => $recent];

        return $recent;
    }

    private function remember(Scene $scene, string $name): void
    {
        $this->remembered = [];
        $recent = array_slice([$name, ...array_values(array_diff($this->recent($scene), [$name]))], 0, self::KEPT);
        $this->remembered = [];
        Cache::put("recent.{$scene->id}", $recent, now()->addMinutes(self::MINUTES));
    }

    /**
     * @phpstan-impure
     *
     * @return array<string, mixed>|null
     */
    private function kept(string $key): ?array
    {
        if (! isset($this->read[$key])) {
            $text = Cache::get($key);
            $manifest = is_string($text) ? json_decode($text, true) : null;
            if (! is_array($manifest)) {
                return null;
            }
            $this->reread($key, $manifest);
        }

        /** @var array<string, mixed> */
        return $this->read[$key];
    }

    /** @param  array<mixed>  $manifest */
    private function reread(string $key, array $manifest): void
    {
        $this->read = array_slice($this->read, -4, preserve_keys: true) + [$key => $manifest];
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
