<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile\Passes;

use CrispReel\Core\Compile\Draft;
use CrispReel\Core\Compile\Pass;
use CrispReel\Core\Compile\UnableToCompile;
use CrispReel\Core\Document\TouchUp;

/** Touch-ups with the joints that they turn. */
final class TouchUps implements Pass
{
    private Draft $draft;

    public function settle(Draft $draft): void
    {
        $this->draft = $draft;
        $draft->putTouchUps($this->touchUps());
    }

    /** @return array<string, list<array{TouchUp, int}>> */
    private function touchUps(): array
    {
        $out = [];
        foreach ($this->draft->document->touchUps as $t) {
            $item = $this->draft->document->items[$t->item];
            $joint = $this->draft->figure($item)?->skeleton->joint($t->joint);
            $out[$t->item][] = [$t, $joint ?? throw UnableToCompile::noSuchMount($item->name, $t->joint)];
        }

        return $out;
    }
}
