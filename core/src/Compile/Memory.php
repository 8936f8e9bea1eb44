<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile;

use Closure;

/**
 * What was worked out before, by the hash of what it was worked out from: who compiles one state of a scene after the other
 * hands the same memory in, and pays for what has changed. It holds a bounded number; what was not asked for longest goes first.
 */
final class Memory
{
    /** @var array<string, mixed> */
    private array $kept = [];

    public function __construct(private readonly int $most = 600)
    {
    }

    /**
     * @template T
     *
     * @param  Closure(): T  $make
     * @return T
     */
    public function of(string $key, Closure $make): mixed
    {
        if (array_key_exists($key, $this->kept)) {
            $found = $this->kept[$key];
            unset($this->kept[$key]);
        } else {
            $found = $make();
        }
        // What is not there is asked for again: it may have come meanwhile.
        if ($found !== null) {
            $this->put($key, $found);
        }

        /** @var T */
        return $found;
    }

    public function put(string $key, mixed $value): void
    {
        unset($this->kept[$key]);
        if (count($this->kept) >= $this->most) {
            unset($this->kept[array_key_first($this->kept)]);
        }
        $this->kept[$key] = $value;
    }

    public function count(): int
    {
        return count($this->kept);
    }

    /** @param  array<mixed>  $parts */
    public static function key(string $kind, array $parts): string
    {
        return "{$kind} ".hash('xxh128', json_encode($parts, JSON_THROW_ON_ERROR));
    }
}
