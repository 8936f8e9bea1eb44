<?php

declare(strict_types=1);

namespace App\Isolation;

/** What a program in the box may use. */
final readonly class BoxLimits
{
    public function __construct(
        public int $cpuSeconds = 20,
        public int $wallSeconds = 25,
        public int $memoryBytes = 1 << 30,
        public int $fileBytes = 1 << 30,
        public int $outputBytes = 64 << 20,
    ) {
    }
}
