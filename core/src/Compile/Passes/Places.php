<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile\Passes;

use CrispReel\Core\Compile\Draft;
use CrispReel\Core\Compile\Pass;
use CrispReel\Core\Document\Item;
use CrispReel\Core\Math\Placement;

/** Where each item stands by itself. */
final class Places implements Pass
{
    public function settle(Draft $draft): void
    {
        $draft->putPlaces(array_map(
            static fn (Item $i): Placement => Placement::standing($i->position, $i->headingDeg, $i->scale),
            $draft->document->items,
        ));
    }
}
