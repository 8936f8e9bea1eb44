<?php

declare(strict_types=1);

namespace CrispReel\Core\Format\Gltf;

/** Parts of decoded JSON as what they should be; what is something else becomes empty. */
final class Json
{
    /** @return array<string, mixed> */
    public static function map(mixed $value): array
    {
        /** @var array<string, mixed> $map */
        $map = is_array($value) ? $value : [];

        return $map;
    }

    /** @return list<array<string, mixed>> */
    public static function maps(mixed $value): array
    {
        return array_map(self::map(...), is_array($value) ? array_values($value) : []);
    }

    /** @return list<int> */
    public static function ints(mixed $value): array
    {
        return is_array($value) ? array_values(array_filter($value, is_int(...))) : [];
    }

    /** @return array<string, int> */
    public static function intMap(mixed $value): array
    {
        /** @var array<string, int> $map */
        $map = is_array($value) ? array_filter($value, is_int(...)) : [];

        return $map;
    }

    /** @return list<float> */
    public static function floats(mixed $value): array
    {
        return array_map(
            static fn (mixed $v): float => is_int($v) || is_float($v) ? (float) $v : 0.0,
            is_array($value) ? array_values($value) : [],
        );
    }

    /** @return list<string> */
    public static function strings(mixed $value): array
    {
        return is_array($value) ? array_values(array_filter($value, is_string(...))) : [];
    }
}
