<?php

declare(strict_types=1);

namespace CrispReel\Core\Motion;

use CrispReel\Core\Rig\Skeleton;

/** Keyed channels of one motion as they came in. */
final readonly class Clip
{
    public float $seconds;

    /** @param  list<Channel>  $channels */
    public function __construct(public string $name, public array $channels)
    {
        $this->seconds = $channels === [] ? 0.0 : max(array_map(static fn (Channel $c): float => $c->duration(), $channels));
    }

    /** The same keys, so many times as fast. */
    public function paced(float $factor): self
    {
        return new self($this->name, array_map(static fn (Channel $c): Channel => $c->paced($factor), $this->channels));
    }

    /**
     * Local rotations (4 a joint) and the translation of the root joint at a time; what no channel moves stays at rest.
     *
     * @return array{list<float>, array{float, float, float}}
     */
    public function pose(Skeleton $skeleton, float $seconds, int $root): array
    {
        $rotations = $skeleton->rotations;
        $translation = $skeleton->restTranslation($root);
        foreach ($this->channels as $c) {
            $joint = $skeleton->index[$c->target] ?? null;
            if ($joint === null) {
                continue;
            }
            if ($c->path === 'rotation') {
                foreach ($c->at($seconds) as $k => $v) {
                    $rotations[4 * $joint + $k] = $v;
                }
            } elseif ($c->path === 'translation' && $joint === $root) {
                $v = $c->at($seconds);
                $translation = [$v[0], $v[1], $v[2]];
            }
        }

        return [array_values($rotations), $translation];
    }
}
