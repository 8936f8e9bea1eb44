<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile;

use CrispReel\Core\Document\AssetSource;
use CrispReel\Core\Document\Document;
use CrispReel\Core\Document\Item;
use CrispReel\Core\Math\Ease;
use CrispReel\Core\Math\Keys;
use CrispReel\Core\Math\Placement;
use CrispReel\Core\Rig\Figure;

/** Where things are by themselves, before anybody moves: on their marks, by their keys, or on routes that nobody pushes them along. */
final readonly class OwnPlaces
{
    /** @param  \Closure(Item): (Figure|null)  $figures */
    public function __construct(
        private Document $document,
        private AssetSource $assets,
        private \Closure $figures,
        private Surroundings $around,
        private Memory $memory,
    ) {
    }

    /** @return \Closure(float): Placement the place of an item at a frame */
    public function of(Item $item): \Closure
    {
        $drive = $this->drive($item);
        if ($drive !== null) {
            return $drive->place(...);
        }
        $mark = Placement::standing($item->position, $item->headingDeg, $item->scale);

        return static fn (float $frame): Placement => self::keyed($item, $mark, $frame);
    }

    /** Where an item is by its keys; without any, at $mark. */
    public static function keyed(Item $item, Placement $mark, float $frame): Placement
    {
        if ($item->moves === []) {
            return $mark;
        }
        [$i, $j, $share] = Keys::around(array_column($item->moves, 'frame'), $frame);
        [$a, $b] = [$item->moves[$i], $item->moves[$j]];
        $u = $j > $i ? Ease::named($b->ease, Ease::clamp($share)) : 0.0;

        return (new Placement($a->position, $a->rotation, $mark->scale))->mix(new Placement($b->position, $b->rotation, $mark->scale), $u);
    }

    /** A thing on a route that nobody pushes it along. */
    public function drive(Item $item): ?Drive
    {
        $route = $item->route;
        if ($route === null || $route->by !== null || $item->kind === 'performer') {
            return null;
        }
        $asset = $this->document->assets[$item->asset];
        $rate = $this->document->rate->perSecond();

        return $this->memory->of(
            Memory::key('drive', [$item->toArray(), $asset->digest, $this->around->everything(), $rate]),
            fn (): Drive => new Drive(
                $item, $route, Vehicle::of($this->assets->digest($asset)), ($this->figures)($item), $this->around, $this->assets, $rate, [],
            ),
        );
    }

    /** @return array<mixed> what the places of an item are computed from */
    public function grounds(Item $item): array
    {
        $drive = $this->drive($item);

        return [$item->toArray(), $drive?->fingerprint(), $this->document->assets[$item->asset]->digest];
    }
}
