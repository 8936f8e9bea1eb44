<?php

declare(strict_types=1);

namespace CrispReel\Core\Document;

/** Checked reading of decoded JSON: every value asked for is there, of its kind and in range, or the place is named. */
final readonly class Input
{
    /** @param  array<array-key, mixed>  $data */
    public function __construct(private array $data, private string $where = '')
    {
    }

    public function path(string $key): string
    {
        return ltrim("{$this->where}/{$key}", '/');
    }

    public function has(string $key): bool
    {
        return isset($this->data[$key]);
    }

    public function text(string $key, ?string $default = null, int $most = 200): string
    {
        $v = $this->data[$key] ?? $default;
        if (! is_string($v) || mb_strlen($v) > $most) {
            throw UnableToReadDocument::at($this->path($key), "a text of at most {$most} characters belongs here");
        }

        return $v;
    }

    /** @param  list<string>  $among */
    public function choice(string $key, array $among, ?string $default = null): string
    {
        $v = $this->text($key, $default);
        if (! in_array($v, $among, true)) {
            throw UnableToReadDocument::at($this->path($key), "\"{$v}\" is not one of ".implode(', ', $among));
        }

        return $v;
    }

    public function id(string $key): string
    {
        $v = $this->data[$key] ?? null;
        if (! is_string($v) || preg_match('/^[A-Za-z0-9_.-]{1,64}$/', $v) !== 1) {
            throw UnableToReadDocument::at($this->path($key), 'an id of letters, digits, dots and dashes belongs here');
        }

        return $v;
    }

    public function number(string $key, ?float $default = null, float $least = -1e6, float $most = 1e6): float
    {
        $v = $this->data[$key] ?? $default;
        if ((! is_int($v) && ! is_float($v)) || ! is_finite((float) $v)) {
            throw UnableToReadDocument::at($this->path($key), 'a number belongs here');
        }
        if ($v < $least || $v > $most) {
            throw UnableToReadDocument::at($this->path($key), sprintf('%s is not between %s and %s', $v, $least, $most));
        }

        return (float) $v;
    }

    public function whole(string $key, ?int $default = null, int $least = -1_000_000, int $most = 1_000_000): int
    {
        $v = $this->number($key, $default === null ? null : (float) $default, $least, $most);
        if (floor($v) !== $v) {
            throw UnableToReadDocument::at($this->path($key), 'a whole number belongs here');
        }

        return (int) $v;
    }

    /** @return array{float, float, float} */
    public function vector(string $key): array
    {
        $v = $this->numbers($key, 3);

        return [$v[0], $v[1], $v[2]];
    }

    /** @return array{float, float, float, float} */
    public function quaternion(string $key): array
    {
        $v = $this->numbers($key, 4);
        $l = sqrt($v[0] ** 2 + $v[1] ** 2 + $v[2] ** 2 + $v[3] ** 2);
        if (abs($l - 1) > 0.01) {
            throw UnableToReadDocument::at($this->path($key), 'a unit quaternion belongs here');
        }

        return [$v[0] / $l, $v[1] / $l, $v[2] / $l, $v[3] / $l];
    }

    /** @return list<float> */
    public function numbers(string $key, int $count): array
    {
        $v = $this->data[$key] ?? null;
        if (! is_array($v) || count($v) !== $count) {
            throw UnableToReadDocument::at($this->path($key), "{$count} numbers belong here");
        }
        $out = [];
        foreach (array_values($v) as $n) {
            if ((! is_int($n) && ! is_float($n)) || ! is_finite((float) $n) || abs((float) $n) > 1e6) {
                throw UnableToReadDocument::at($this->path($key), "{$count} finite numbers belong here");
            }
            $out[] = (float) $n;
        }

        return $out;
    }

    /** @return array<string, mixed> */
    public function map(string $key): array
    {
        $v = $this->data[$key] ?? [];
        // An empty object and an empty list look alike once they are decoded.
        if (! is_array($v) || ($v !== [] && array_is_list($v))) {
            throw UnableToReadDocument::at($this->path($key), 'an object belongs here');
        }

        /** @var array<string, mixed> $v */
        return $v;
    }

    public function child(string $key): self
    {
        return new self($this->map($key), $this->path($key));
    }

    /** @return list<array{float, float}> */
    public function pairs(string $key, int $most): array
    {
        $v = $this->data[$key] ?? [];
        if (! is_array($v) || ! array_is_list($v) || count($v) > $most) {
            throw UnableToReadDocument::at($this->path($key), "a list of at most {$most} pairs of numbers belongs here");
        }
        $all = new self($v, $this->path($key));
        $out = [];
        foreach (array_keys($v) as $i) {
            $pair = $all->numbers((string) $i, 2);
            $out[] = [$pair[0], $pair[1]];
        }

        return $out;
    }

    /** @return list<string> each once */
    public function ids(string $key, int $most): array
    {
        $v = $this->data[$key] ?? null;
        if (! is_array($v) || count($v) > $most) {
            throw UnableToReadDocument::at($this->path($key), "a list of up to {$most} ids belongs here");
        }
        $in = new self(array_values($v), $this->path($key));

        return array_values(array_unique(array_map(static fn (int $k): string => $in->id((string) $k), array_keys($in->data))));
    }

    /**
     * @param  list<string>  $among
     * @return list<string>
     */
    public function choices(string $key, array $among): array
    {
        $v = $this->data[$key] ?? [];
        if (! is_array($v) || ! array_is_list($v)) {
            throw UnableToReadDocument::at($this->path($key), 'a list belongs here');
        }
        $out = [];
        foreach ($v as $one) {
            if (! is_string($one) || ! in_array($one, $among, true)) {
                throw UnableToReadDocument::at(
                    $this->path($key),
                    sprintf('"%s" is not one of %s', is_scalar($one) ? (string) $one : '?', implode(', ', $among)),
                );
            }
            $out[] = $one;
        }

        return $out;
    }

    public function yes(string $key): bool
    {
        $v = $this->data[$key] ?? false;

        return is_bool($v) ? $v : throw UnableToReadDocument::at($this->path($key), 'true or false belongs here');
    }

    /** @return list<self> */
    public function each(string $key, int $most = 20_000): array
    {
        $v = $this->data[$key] ?? [];
        if (! is_array($v) || ! array_is_list($v)) {
            throw UnableToReadDocument::at($this->path($key), 'a list belongs here');
        }
        if (count($v) > $most) {
            throw UnableToReadDocument::at($this->path($key), sprintf('%d entries where at most %d are taken', count($v), $most));
        }
        $out = [];
        foreach ($v as $i => $entry) {
            $out[] = new self(
                is_array($entry) ? $entry : throw UnableToReadDocument::at($this->path("{$key}/{$i}"), 'an object belongs here'),
                $this->path("{$key}/{$i}"),
            );
        }

        return $out;
    }
}
