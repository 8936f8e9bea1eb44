<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile\Passes;

use CrispReel\Core\Compile\Draft;
use CrispReel\Core\Compile\Drive;
use CrispReel\Core\Compile\Memory;
use CrispReel\Core\Compile\Pass;
use CrispReel\Core\Compile\UnableToCompile;
use CrispReel\Core\Compile\Vehicle;
use CrispReel\Core\Document\Item;

/** Things that go their own way: along routes, by themselves or pushed. */
final class Drives implements Pass
{
    private Draft $draft;

    public function settle(Draft $draft): void
    {
        $this->draft = $draft;
        $draft->putDrives($this->drives());
    }

    /** @return array<string, Drive> */
    private function drives(): array
    {
        [$lanes, $places] = [$this->draft->lanes(), $this->draft->places()];
        $out = [];
        $around = $this->draft->around;
        foreach ($this->draft->document->items as $item) {
            if ($item->route === null) {
                continue;
            }
            if ($item->kind === 'performer') {
                throw UnableToCompile::noRoute($item->name);
            }
            $free = $this->draft->ownPlaces()->drive($item);
            if ($free !== null) {
                $out[$item->id] = $free;

                continue;
            }
            $asset = $this->draft->document->assets[$item->asset];
            $by = $item->route->by;
            $pushing = $this->pushing($item);
            $rate = $this->draft->document->rate->perSecond();
            $key = Memory::key('drive', [
                $item->toArray(), $asset->digest, $around->everything(), $rate, $pushing,
                $by === null ? null : [$places[$by]->flat(), isset($lanes[$by]) ? $lanes[$by]->fingerprint(0, PHP_INT_MAX) : null],
            ]);
            $out[$item->id] = $this->draft->memory->of($key, fn (): Drive => new Drive(
                $item, $item->route, Vehicle::of($this->draft->assets->digest($asset)), $this->draft->figure($item), $around,
                $this->draft->assets, $rate, $lanes, $by === null ? null : $places[$by], $pushing,
            ));
        }

        return $out;
    }

    /** @return array{int, int|null}|null frames in which the hands of the one who pushes are on it */
    private function pushing(Item $item): ?array
    {
        $found = null;
        foreach ($this->draft->document->contacts as $c) {
            if ($c->target === $item->id && $c->item === $item->route?->by) {
                $found = $found === null
                    ? [$c->from, $c->to]
                    : [min($found[0], $c->from), $found[1] === null || $c->to === null ? null : max($found[1], $c->to)];
            }
        }

        return $found;
    }
}
