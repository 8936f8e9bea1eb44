<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile\Passes;

use CrispReel\Core\Compile\Draft;
use CrispReel\Core\Compile\LaneCompiler;
use CrispReel\Core\Compile\Pass;

/** What each performer does, beat after beat. */
final class Lanes implements Pass
{
    public function settle(Draft $draft): void
    {
        $compiler = new LaneCompiler($draft->document, $draft->assets, $draft->figure(...));
        $lanes = [];
        foreach ($draft->document->items as $item) {
            $figure = $draft->figure($item);
            if ($figure !== null) {
                $lanes[$item->id] = $compiler->lane($item, $figure);
            }
        }
        $draft->putLanes($lanes);
        $draft->note(...$compiler->notes);
    }
}
