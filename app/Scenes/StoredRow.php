<?php

declare(strict_types=1);

namespace App\Scenes;

use CrispReel\Core\Document\AssetRef;
use CrispReel\Core\Document\Fields\FieldList;
use CrispReel\Core\Document\Fields\Holds;
use CrispReel\Core\Document\Fields\Id;
use CrispReel\Core\Document\Fields\Listed;
use CrispReel\Core\Document\Fields\Many;
use CrispReel\Core\Document\Fields\Part;
use CrispReel\Core\Document\Fields\Ref;
use CrispReel\Core\Document\Fields\Refs;
use CrispReel\Core\Document\Fields\Values;
use CrispReel\Core\Document\Fields\Vector;

/** Stored rows by the fields of their kind: as a document says them, and as the page keeps them. */
final class StoredRow
{
    /**
     * @param  class-string  $class
     * @param  array<string, mixed>  $row  columns
     * @return array<string, mixed> ids with their letters
     */
    public static function document(string $class, array $row): array
    {
        $out = [];
        foreach (FieldList::of($class) as $f) {
            $value = self::value($f, $row);
            $out[$f->name] = match (true) {
                $value === null => null,
                $f->field instanceof Id => FieldList::row($class)->letter.$value,
                $f->field instanceof Ref => self::letter($f->field->to).$value,
                $f->field instanceof Many && $f->field->by !== null => self::listed($f->field->by, (array) $value),
                default => $value,
            };
        }

        return $out;
    }

    /**
     * @param  class-string  $class
     * @param  array<string, mixed>  $row  columns
     * @return array<string, mixed> ids as numbers
     */
    public static function page(string $class, array $row): array
    {
        $out = [];
        foreach (FieldList::of($class) as $f) {
            $value = self::value($f, $row);
            $out[self::pageName($f)] = match (true) {
                $f->field instanceof Refs => (array) $value,
                $f->field instanceof Many && $f->field->by === null => self::filled($f->field->of, (array) $value),
                $f->field instanceof Many, $f->field instanceof Values, $f->field instanceof Part && $f->field->sparse => (object) $value,
                default => $value,
            };
        }
        $order = FieldList::row($class)->order;

        return $order === 'sort' ? $out + ['sort' => self::whole($row['sort'])] : $out;
    }

    public static function pageName(Listed $f): string
    {
        return $f->field instanceof Ref ? $f->field->row ?? "{$f->name}Id" : $f->name;
    }

    /** The letter before the numbers of a kind's ids. @param  class-string  $class */
    private static function letter(string $class): string
    {
        return $class === AssetRef::class ? 'a' : FieldList::row($class)->letter;
    }

    /** @param  array<string, mixed>  $row */
    private static function value(Listed $f, array $row): mixed
    {
        if ($f->field instanceof Vector && $f->field->columns !== null) {
            return array_map(static fn (string $c): float => self::number($row[$c]), $f->field->columns);
        }
        $held = $row[$f->column] ?? null;
        // The image of a row in the journal may be older than a field of it.
        if ($held === null && $f->default !== null && ! array_key_exists($f->column, $row)) {
            return $f->field->write($f->default);
        }

        return $held === null ? null : match ($f->field->holds()) {
            Holds::Whole => self::whole($held),
            Holds::Number => self::number($held),
            Holds::Text => $held,
            Holds::YesNo => (bool) $held,
            Holds::Json => is_string($held) ? json_decode($held, true, 64, JSON_THROW_ON_ERROR) : null,
        };
    }

    private static function whole(mixed $held): int
    {
        return is_numeric($held) ? (int) $held : 0;
    }

    private static function number(mixed $held): float
    {
        return is_numeric($held) ? (float) $held : 0.0;
    }

    /**
     * @param  array<array-key, mixed>  $kept  by one of their fields
     * @return list<array<string, mixed>>
     */
    private static function listed(string $by, array $kept): array
    {
        $out = [];
        foreach ($kept as $key => $one) {
            $out[] = [$by => (string) $key] + (array) $one;
        }

        return $out;
    }

    /**
     * Keys and the like with all that goes without saying.
     *
     * @param  class-string  $class
     * @param  array<array-key, mixed>  $kept
     * @return list<array<string, mixed>>
     */
    private static function filled(string $class, array $kept): array
    {
        $plain = [];
        foreach (FieldList::of($class) as $f) {
            $plain[$f->name] = $f->default === null ? null : $f->field->write($f->default);
        }

        return array_map(static fn (mixed $one): array => (array) $one + $plain, array_values($kept));
    }
}
