<?php

declare(strict_types=1);

namespace CrispReel\Core\Rig;

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
     * How many even samples, the first and the last included, fall on every key and are at least so many a second. Keys
     * that are not evenly spaced cannot all be met: then only the rate counts.
     */
    public function samples(float $atLeast): int
    {
        $most = null;
        foreach ($this->channels as $c) {
            $most = $most === null || count($c->times) > count($most) ? $c->times : $most;
        }
        $spans = $most === null ? 0 : count($most) - 1;
        $even = $spans > 0 && $this->seconds > 0.0;
        foreach ($most ?? [] as $k => $t) {
            $even = $even && abs($t - $this->seconds * $k / max(1, $spans)) < 1e-3 * $this->seconds / max(1, $spans);
        }
        if (! $even || $spans / $this->seconds > 4 * $atLeast) {
            return (int) ceil($this->seconds * $atLeast) + 1;
        }

        return $spans * (int) ceil($atLeast * $this->seconds / $spans - 1e-6) + 1;
    }

    /**
     * Local rotations (4 a joint) and the translation of the root joint at a time; what no channel moves stays at rest.
     *
     * @return array{list<float>, array{float, float, float}}
     */
    public function pose(Skeleton $skeleton, float $seconds, int $root): array
    {
        [$rotations, $places] = $this->places($skeleton, $seconds, [$root]);

        return [$rotations, $places[$root]];
    }

    /**
     * Local rotations (4 a joint) and the translations of some joints at a time; what no channel moves stays at rest.
     *
     * @param  list<int>  $joints
     * @param  list<float>  $sizes  by joint, what keyed places are multiplied with; none: they are taken as they are
     * @return array{list<float>, array<int, array{float, float, float}>}
     */
    public function places(Skeleton $skeleton, float $seconds, array $joints, array $sizes = []): array
    {
        $rotations = $skeleton->rotations;
        $places = [];
        foreach ($joints as $j) {
            $places[$j] = $skeleton->restTranslation($j);
        }
        foreach ($this->channels as $c) {
            $joint = $skeleton->index[$c->target] ?? null;
            if ($joint === null) {
                continue;
            }
            if ($c->path === 'rotation') {
                foreach ($c->at($seconds) as $k => $v) {
                    $rotations[4 * $joint + $k] = $v;
                }
            } elseif ($c->path === 'translation' && isset($places[$joint])) {
                $v = $c->at($seconds);
                $size = $sizes[$joint] ?? 1.0;
                $places[$joint] = [$v[0] * $size, $v[1] * $size, $v[2] * $size];
            }
        }

        return [array_values($rotations), $places];
    }
}
