<?php

declare(strict_types=1);

namespace App\Scenes;

use CrispReel\Core\Compile\CompiledScene;
use CrispReel\Core\Compile\UnableToCompile;

/** What the warm process answers; the states that it settled last stay at hand. */
final class WarmHouse
{
    private const STATES = 8;

    /** @var array<string, CompiledScene> by state, the latest last */
    private array $settled = [];

    public function __construct(private readonly SceneStream $stream, private readonly SceneManifests $manifests)
    {
    }

    /**
     * @param  array<mixed>  $what
     * @return array<string, mixed>
     */
    public function answer(array $what): array
    {
        $state = is_string($what['state'] ?? null) ? $what['state'] : '';
        try {
            return match ($what['do'] ?? null) {
                'settle' => $this->settle($state, is_array($what['light'] ?? null) ? $what['light'] : []),
                'lookout' => $this->lookout($state),
                'setups' => $this->setUps($state, $what),
                'bake' => $this->bake($state, (int) ($what['n'] ?? 0), is_array($what['names'] ?? null) ? $what['names'] : []),
                default => ['done' => false],
            };
        } catch (UnableToCompile $e) {
            return ['refused' => $e->reason(), 'message' => $e->getMessage(), 'remedy' => $e->remedy()];
        }
    }

    /**
     * @param  array<string, string>  $light
     * @return array<string, mixed>
     */
    private function settle(string $state, array $light): array
    {
        $scene = $this->scene($state);
        if ($scene !== null) {
            $this->manifests->keep($state, $this->stream->manifest($scene, $light));
        }

        return ['done' => $scene !== null];
    }

    /**
     * @param  array<mixed>  $names
     * @return array<string, mixed>
     */
    private function bake(string $state, int $n, array $names): array
    {
        $names = array_values(array_filter($names, is_string(...)));
        $scene = $this->scene($state);
        if ($scene !== null) {
            $this->stream->pieces($n, $names, static fn (): CompiledScene => $scene);
        }

        return ['done' => $scene !== null];
    }

    /**
     * @param  array<mixed>  $what
     * @return array<string, mixed>
     */
    private function setUps(string $state, array $what): array
    {
        $scene = $this->scene($state);

        return $scene === null ? ['done' => false] : ['done' => true, 'setUps' => $this->stream->setUps($scene, SetUpWish::of($what))];
    }

    /** @return array<string, mixed> */
    private function lookout(string $state): array
    {
        $scene = $this->scene($state);

        return $scene === null ? ['done' => false] : ['done' => true, 'notes' => $this->stream->lookout($scene)];
    }

    private function scene(string $state): ?CompiledScene
    {
        $found = $this->settled[$state] ?? null;
        if ($found === null) {
            $document = SceneManifests::document($state);
            $found = $document === null ? null : $this->stream->compileDocument($document);
        }
        if ($found !== null) {
            unset($this->settled[$state]);
            $this->settled = array_slice($this->settled, 1 - self::STATES, preserve_keys: true) + [$state => $found];
        }

        return $found;
    }
}
