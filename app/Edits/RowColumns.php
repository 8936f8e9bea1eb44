<?php

declare(strict_types=1);

namespace App\Edits;

use App\Exceptions\UserError;
use CrispReel\Core\Document\AssetRef;
use CrispReel\Core\Document\Fields\Field;
use CrispReel\Core\Document\Fields\FieldList;
use CrispReel\Core\Document\Fields\Frame;
use CrispReel\Core\Document\Fields\Holds;
use CrispReel\Core\Document\Fields\Id;
use CrispReel\Core\Document\Fields\Listed;
use CrispReel\Core\Document\Fields\Many;
use CrispReel\Core\Document\Fields\Numbers;
use CrispReel\Core\Document\Fields\Pairs;
use CrispReel\Core\Document\Fields\Part;
use CrispReel\Core\Document\Fields\Ref;
use CrispReel\Core\Document\Fields\Refs;
use CrispReel\Core\Document\Fields\Turn;
use CrispReel\Core\Document\Fields\Values;
use CrispReel\Core\Document\Fields\Vector;
use stdClass;

/** What an edit command says of a row, as the columns that keep it. */
final class RowColumns
{
    /**
     * A new row: what is not said is as it goes without saying.
     *
     * @param  class-string  $class
     * @param  array<string, mixed>  $in  checked by RowRules
     * @return array<string, mixed>
     */
    public static function fresh(string $class, array $in, EditContext $scene): array
    {
        $out = ['scene_id' => $scene->scene->id] + self::of($class, $in, $scene);
        foreach (FieldList::of($class) as $f) {
            if (! $f->required && ! $f->field instanceof Ref && ! ($f->field instanceof Vector && $f->field->columns !== null)) {
                $out += [$f->column => self::plain($f)];
            }
        }
        self::check($class, $out, null);

        return $out;
    }

    /**
     * What changes of a row.
     *
     * @param  class-string  $class
     * @param  array<string, mixed>  $in  checked by RowRules
     * @return array<string, mixed>
     */
    public static function changed(string $class, array $in, EditContext $scene, stdClass $row): array
    {
        $out = self::of($class, $in, $scene, $row);
        self::check($class, $out, $row);

        return $out;
    }

    /**
     * Fields as a document says them, stored.
     *
     * @param  class-string  $class
     * @param  array<string, mixed>  $said
     * @return array<string, mixed>
     */
    public static function stored(string $class, array $said): array
    {
        $out = [];
        foreach (FieldList::of($class) as $f) {
            if (! array_key_exists($f->name, $said)) {
                continue;
            }
            $value = $said[$f->name];
            if ($f->field instanceof Vector && $f->field->columns !== null) {
                $out += array_combine($f->field->columns, self::floats((array) $value));
            } else {
                $out[$f->column] = $f->field->holds() === Holds::Json ? self::json($value) : $value;
            }
        }

        return $out;
    }

    /**
     * @param  class-string  $class
     * @param  array<string, mixed>  $in
     * @return array<string, mixed>
     */
    private static function of(string $class, array $in, EditContext $scene, ?stdClass $row = null): array
    {
        $out = [];
        foreach (FieldList::of($class) as $f) {
            if (! array_key_exists($f->name, $in) || $f->field instanceof Id) {
                continue;
            }
            $given = $in[$f->name];
            if ($given === null && $f->field instanceof Ref && ! $f->nullable) {
                continue;
            }
            if ($f->field instanceof Vector && $f->field->columns !== null) {
                $out += is_array($given) ? array_combine($f->field->columns, self::floats($given)) : [];
            } elseif ($f->field instanceof Refs) {
                $kind = FieldList::row($f->field->to);
                $ids = array_map(static fn (mixed $ref): string => $kind->letter.$scene->find($kind->table, $ref)->id, (array) $given);
                $out[$f->column] = self::json(array_values(array_unique($ids)));
            } elseif (! $f->field instanceof Ref) {
                $out[$f->column] = self::column($f, $given, $row?->{$f->column});
            } elseif ($f->field->to !== AssetRef::class) {
                $out[$f->column] = $given === null ? null : (int) $scene->find(FieldList::row($f->field->to)->table, $given)->id;
            }
        }

        return $out;
    }

    private static function column(Listed $f, mixed $given, mixed $before): mixed
    {
        if ($given === null) {
            return self::plain($f);
        }
        if ($f->field->holds() !== Holds::Json) {
            return self::scalar($f->field, $given);
        }
        $value = self::clean($f->field, $given);
        if ($f->field instanceof Values || ($f->field instanceof Part && $f->field->sparse)) {
            $value = self::kept($f->field, (array) $value, (array) $given, is_string($before) ? (array) json_decode($before, true) : []);
        }

        return self::json($value);
    }

    /**
     * What was said before of the rest stays; what is said to be nothing goes.
     *
     * @param  array<array-key, mixed>  $value
     * @param  array<array-key, mixed>  $given
     * @param  array<array-key, mixed>  $before
     */
    private static function kept(Field $field, array $value, array $given, array $before): ?object
    {
        $all = $value + array_diff_key($before, array_filter($given, is_null(...)));

        return $all === [] && $field instanceof Part ? null : (object) $all;
    }

    /** What a column holds when nothing is said. */
    private static function plain(Listed $f): mixed
    {
        if ($f->default === null || $f->field->holds() !== Holds::Json) {
            return $f->default;
        }
        $written = $f->field->write($f->default);

        // Nothing of a part or a list is no value; but values by name and vectors are always there.
        return $f->field instanceof Part || $f->field instanceof Many ? null : self::json($written);
    }

    private static function json(mixed $value): ?string
    {
        return $value === null ? null : json_encode($value, JSON_THROW_ON_ERROR | JSON_UNESCAPED_SLASHES);
    }

    private static function scalar(Field $field, mixed $given): int|float|string|bool
    {
        return match ($field->holds()) {
            Holds::Whole => is_numeric($given) ? (int) $given : 0,
            Holds::Number => is_numeric($given) ? (float) $given : 0.0,
            Holds::YesNo => (bool) $given,
            default => is_scalar($given) ? (string) $given : '',
        };
    }

    /** A structured value with numbers as numbers, and without what is null. */
    private static function clean(Field $field, mixed $given): mixed
    {
        return match (true) {
            ! is_array($given) => self::scalar($field, $given),
            $field instanceof Part => self::cleanPart($field->of, $given),
            $field instanceof Many => array_map(
                static fn (mixed $v): array => self::cleanPart($field->of, (array) $v),
                array_values($given),
            ),
            $field instanceof Vector, $field instanceof Turn, $field instanceof Numbers => self::floats($given),
            $field instanceof Pairs => array_map(static fn (mixed $p): array => self::floats((array) $p), array_values($given)),
            $field instanceof Values && $field->ranges !== [] => array_map(floatval(...), array_filter($given, is_numeric(...))),
            default => $given,
        };
    }

    /**
     * @param  class-string  $class
     * @param  array<array-key, mixed>  $given
     * @return array<string, mixed>
     */
    private static function cleanPart(string $class, array $given): array
    {
        $out = [];
        foreach (FieldList::of($class) as $f) {
            if (isset($given[$f->name])) {
                $out[$f->name] = self::clean($f->field, $given[$f->name]);
            }
        }

        return $out;
    }

    /**
     * @param  array<array-key, mixed>  $given
     * @return list<float>
     */
    private static function floats(array $given): array
    {
        return array_map(static fn (mixed $v): float => is_numeric($v) ? (float) $v : 0.0, array_values($given));
    }

    /**
     * @param  class-string  $class
     * @param  array<string, mixed>  $columns
     */
    private static function check(string $class, array $columns, ?stdClass $row): void
    {
        $list = array_column(FieldList::of($class), null, 'name');
        $at = static fn (Listed $f): mixed => array_key_exists($f->column, $columns) ? $columns[$f->column] : $row?->{$f->column};
        foreach ($list as $f) {
            if (! $f->field instanceof Frame || $f->field->after === null || ! is_numeric($at($f))) {
                continue;
            }
            $first = $at($list[$f->field->after]);
            if ((int) $at($f) <= (is_numeric($first) ? (int) $first : 0)) {
                throw new UserError(
                    FieldList::row($class)->word.'.frames',
                    ucfirst($f->field->says).'.',
                    'Give an end frame later than its start.',
                );
            }
        }
    }
}
