<?php

declare(strict_types=1);

namespace CrispReel\Core\Staging;

use CrispReel\Core\Document\Fields\Field;
use CrispReel\Core\Document\Fields\FieldList;
use CrispReel\Core\Document\Fields\Frame;
use CrispReel\Core\Document\Fields\Frames;
use CrispReel\Core\Document\Fields\Many;
use CrispReel\Core\Document\Fields\Pairs;
use CrispReel\Core\Document\Fields\Part;

/** Frames of a row at another frame rate: everything stays at the frame nearest to its time, and no length of time is lost. */
final class Retime
{
    /**
     * @param  class-string  $class  of the row
     * @param  array<string, mixed>  $said  its fields as JSON holds them
     * @param  float  $factor  new rate over old
     * @return array<string, mixed> the fields that hold frames, brought over
     */
    public static function of(string $class, array $said, float $factor): array
    {
        $out = [];
        foreach (FieldList::of($class) as $f) {
            $held = $said[$f->name] ?? null;
            $new = $held === null ? null : self::value($f->field, $held, $factor);
            if ($f->field instanceof Frame && $f->field->after !== null && is_int($new)) {
                $first = $out[$f->field->after] ?? null;
                $new = max($new, (is_int($first) ? $first : 0) + 1);
            }
            if ($new !== null) {
                $out[$f->name] = $new;
            }
        }

        return $out;
    }

    /** Null: there are no frames in it. */
    private static function value(Field $field, mixed $held, float $factor): mixed
    {
        return match (true) {
            ($field instanceof Frame || $field instanceof Frames) && is_numeric($held) => max(
                $field->least,
                (int) round((float) $held * $factor),
            ),
            $field instanceof Pairs && $field->frames && is_array($held) => array_map(
                static fn (mixed $p): array => is_array($p) && is_numeric($p[0] ?? null) ? [(float) $p[0] * $factor, $p[1] ?? 0.0] : [],
                array_values($held),
            ),
            $field instanceof Part && is_array($held) => self::part($field->of, $held, $factor),
            $field instanceof Many && is_array($held) => self::keys($field->of, $held, $factor),
            default => null,
        };
    }

    /**
     * @param  class-string  $class
     * @param  array<array-key, mixed>  $held
     * @return array<array-key, mixed>|null
     */
    private static function part(string $class, array $held, float $factor): ?array
    {
        /** @var array<string, mixed> $held */
        $new = self::of($class, $held, $factor);

        return $new === [] ? null : $new + $held;
    }

    /**
     * Of keys that come to lie on one frame the first stays.
     *
     * @param  class-string  $class
     * @param  array<array-key, mixed>  $held
     * @return list<array<array-key, mixed>>|null
     */
    private static function keys(string $class, array $held, float $factor): ?array
    {
        $out = [];
        foreach ($held as $key) {
            $new = is_array($key) ? self::part($class, $key, $factor) : null;
            if ($new === null || ! is_int($new['frame'] ?? null)) {
                return null;
            }
            $out[$new['frame']] ??= $new;
        }

        return $out === [] ? null : array_values($out);
    }
}
