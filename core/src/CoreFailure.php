<?php

declare(strict_types=1);

namespace CrispReel\Core;

use Throwable;

/** Every failure that bad input can cause in the core: what, where, and what to do. */
interface CoreFailure extends Throwable
{
    /** Short machine-readable name, the same on every run. */
    public function reason(): string;

    /** What the person can do about it. */
    public function remedy(): string;
}
