<?php

declare(strict_types=1);

namespace CrispReel\Core\Intake\Troubles;

/** Numbers that people and findings hand to repairs. */
final class Values
{
    /** @throws \InvalidArgumentException */
    public static function number(mixed $value, float $unset, float $least, float $most): float
    {
        if ($value === null) {
            return $unset;
        }
        if ((! is_int($value) && ! is_float($value)) || ! is_finite((float) $value) || $value < $least || $value > $most) {
            throw new \InvalidArgumentException(sprintf('A number from %s to %s belongs here.', $least, $most));
        }

        return (float) $value;
    }

    /** @return array{float, float, float, float} */
    public static function turn(mixed $value): array
    {
        if (! is_array($value) || count($value) !== 4) {
            throw new \InvalidArgumentException('A turn is four numbers.');
        }
        $q = array_map(static fn (mixed $v): float => self::number($v, 0.0, -1.0001, 1.0001), array_values($value));

        return \CrispReel\Core\Math\Q4::unit([$q[0], $q[1], $q[2], $q[3]]);
    }

    /** @return array{float, float, float} */
    public static function point(mixed $value): array
    {
        if (! is_array($value) || count($value) !== 3) {
            throw new \InvalidArgumentException('A point is three numbers.');
        }
        $p = array_map(static fn (mixed $v): float => self::number($v, 0.0, -1e6, 1e6), array_values($value));

        return [$p[0], $p[1], $p[2]];
    }

    public static function metres(float $v): string
    {
        return match (true) {
            $v < 0.01 => sprintf('%.1f mm', $v * 1000), $v < 1.0 => sprintf('%.0f cm', $v * 100), $v < 20.0 => sprintf('%.2f m', $v),
            default => sprintf('%s m', number_format($v)),
        };
    }
}
