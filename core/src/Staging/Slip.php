<?php

declare(strict_types=1);

namespace CrispReel\Core\Staging;

use CrispReel\Core\Document\CameraKey;
use CrispReel\Core\Document\Framing;

/** What a camera does, earlier or later under its shots: the cuts stay where they are. */
final class Slip
{
    /**
     * How far it can go: nothing of it begins before the scene does.
     *
     * @param  list<CameraKey>  $keys
     * @param  list<Framing>  $framings
     * @return int frames, towards zero of what was asked
     *
     * @throws UnableToStage where it has nothing that could come earlier or later
     */
    public static function by(array $keys, array $framings, int $asked, string $letter): int
    {
        $moves = $framings === [] ? count($keys) > 1 : count($framings) > 1 || $framings[0]->keep !== 'turn';
        if (! $moves) {
            throw UnableToStage::because('camera.slip', "Camera {$letter} does not move.", 'Give it a move first; then that can slip.');
        }
        $first = min([PHP_INT_MAX, ...array_column($framings === [] ? $keys : $framings, 'frame')]);

        return max(-$first, $asked);
    }

    /**
     * @param  list<CameraKey>  $keys
     * @return list<array<string, mixed>> as they are kept
     */
    public static function keys(array $keys, int $by): array
    {
        return array_map(static fn (CameraKey $k): array => ['frame' => $k->frame + $by] + $k->toArray(), $keys);
    }
}
