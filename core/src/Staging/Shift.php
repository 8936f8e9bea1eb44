<?php

declare(strict_types=1);

namespace CrispReel\Core\Staging;

use CrispReel\Core\Document\Fields\Field;
use CrispReel\Core\Document\Fields\FieldList;
use CrispReel\Core\Document\Fields\Many;
use CrispReel\Core\Document\Fields\Numbers;
use CrispReel\Core\Document\Fields\Pairs;
use CrispReel\Core\Document\Fields\Part;
use CrispReel\Core\Document\Fields\Vector;

/** Places of a row, elsewhere in the scene: what a copy needs that stands beside what it was made from. */
final class Shift
{
    /**
     * @param  class-string  $class  of the row
     * @param  array<string, mixed>  $said  its fields as JSON holds them
     * @param  array{float, float, float}  $by  metres
     * @return array<string, mixed> the fields that hold places of the scene, shifted
     */
    public static function of(string $class, array $said, array $by): array
    {
        $out = [];
        foreach (FieldList::of($class) as $f) {
            $held = $said[$f->name] ?? null;
            $elsewhere = $f->field instanceof Vector && $f->field->unless !== null && isset($said[$f->field->unless]);
            $new = is_array($held) && ! $elsewhere ? self::value($f->field, $held, $by) : null;
            if ($new !== null) {
                $out[$f->name] = $new;
            }
        }

        return $out;
    }

    /**
     * @param  array<array-key, mixed>  $held
     * @param  array{float, float, float}  $by
     * @return array<array-key, mixed>|null null: there is no place in it
     */
    private static function value(Field $field, array $held, array $by): ?array
    {
        return match (true) {
            ($field instanceof Vector || $field instanceof Numbers) && $field->place => self::plus($held, $by),
            $field instanceof Pairs && $field->places => array_map(
                static fn (mixed $p): array => is_array($p) ? self::plus($p, [$by[0], $by[2]]) : [],
                array_values($held),
            ),
            $field instanceof Part => self::part($field->of, $held, $by),
            $field instanceof Many => self::all($field->of, $held, $by),
            default => null,
        };
    }

    /**
     * @param  class-string  $class
     * @param  array<array-key, mixed>  $held
     * @param  array{float, float, float}  $by
     * @return array<array-key, mixed>|null
     */
    private static function part(string $class, array $held, array $by): ?array
    {
        /** @var array<string, mixed> $held */
        $new = self::of($class, $held, $by);

        return $new === [] ? null : $new + $held;
    }

    /**
     * @param  class-string  $class
     * @param  array<array-key, mixed>  $held
     * @param  array{float, float, float}  $by
     * @return list<array<array-key, mixed>>|null
     */
    private static function all(string $class, array $held, array $by): ?array
    {
        $out = [];
        foreach ($held as $one) {
            $new = is_array($one) ? self::part($class, $one, $by) : null;
            if ($new === null) {
                return null;
            }
            $out[] = $new;
        }

        return $out === [] ? null : $out;
    }

    /**
     * @param  array<array-key, mixed>  $held
     * @param  list<float>  $by
     * @return list<mixed>
     */
    private static function plus(array $held, array $by): array
    {
        $out = array_values($held);
        foreach ($by as $k => $metres) {
            $out[$k] = (is_numeric($out[$k] ?? null) ? (float) $out[$k] : 0.0) + $metres;
        }

        return array_values($out);
    }
}
