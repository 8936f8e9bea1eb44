<?php

declare(strict_types=1);

namespace CrispReel\Core\Math;

/** A stream of seeded numbers (32-bit additive counter through a hash); each generator owns its own. */
final class Random
{
    private int $count = 0;

    public function __construct(private readonly int $seed)
    {
    }

    /** 0 up to (not including) 1. */
    public function next(): float
    {
        return Noise::hash(++$this->count, $this->seed);
    }

    /** -1 up to 1. */
    public function signed(): float
    {
        return $this->next() * 2.0 - 1.0;
    }

    /**
     * @template T
     *
     * @param  non-empty-list<T>  $list
     * @return T
     */
    public function pick(array $list): mixed
    {
        return $list[(int) ($this->next() * count($list))];
    }
}
