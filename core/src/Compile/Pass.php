<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile;

/** Settles one thing of a scene: reads what earlier passes have put into the draft, and puts its own there, once. */
interface Pass
{
    /** @throws UnableToCompile */
    public function settle(Draft $draft): void;
}
