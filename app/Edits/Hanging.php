<?php

declare(strict_types=1);

namespace App\Edits;

use CrispReel\Core\Document\Document;
use CrispReel\Core\Document\Fields\FieldList;
use CrispReel\Core\Document\Fields\Listed;
use CrispReel\Core\Document\Fields\Part;
use CrispReel\Core\Document\Fields\Ref;
use CrispReel\Core\Document\Fields\Refs;
use Illuminate\Support\Facades\DB;
use stdClass;

/** What hangs on a row: rows that are part of it or cannot be without it, and parts of rows that name it. */
final class Hanging
{
    /**
     * Fields of all kinds of rows that refer to a kind.
     *
     * @param  class-string  $to
     * @return list<array{class-string, Listed}>
     */
    public static function fields(string $to): array
    {
        $out = [];
        foreach (Document::ROWS as $class) {
            foreach (FieldList::of($class) as $f) {
                if ($f->field instanceof Ref && $f->field->to === $to) {
                    $out[] = [$class, $f];
                }
            }
        }

        return $out;
    }

    /**
     * Rows that a row takes with it.
     *
     * @param  class-string  $to
     * @return list<array{class-string, int}>
     */
    public static function on(string $to, int $id): array
    {
        $out = [];
        foreach (self::fields($to) as [$class, $f]) {
            if ($f->field instanceof Ref && ($f->field->owner || $f->field->needs)) {
                foreach (DB::table(FieldList::row($class)->table)->where($f->column, $id)->orderBy('id')->pluck('id') as $row) {
                    $out["{$class} {$row}"] = [$class, (int) $row];
                }
            }
        }

        return array_values($out);
    }

    /**
     * What rows only say of a row, and parts of rows that cannot be without it: who was pushed stands where it is, who was sharp is not.
     *
     * @param  class-string  $to
     * @return list<array{string, int, string, string|null}> table, row and column, and what is left in it
     */
    public static function parts(int $scene, string $to, int $id): array
    {
        $name = FieldList::row($to)->letter.$id;
        $out = [];
        foreach (self::fields($to) as [$class, $f]) {
            if ($f->nullable && $f->field instanceof Ref && ! $f->field->owner && ! $f->field->needs) {
                $table = FieldList::row($class)->table;
                foreach (DB::table($table)->where('scene_id', $scene)->where($f->column, $id)->orderBy('id')->pluck('id') as $row) {
                    $out[] = [$table, (int) $row, $f->column, null];
                }
            }
        }
        foreach (Document::ROWS as $class) {
            foreach (FieldList::of($class) as $f) {
                $ref = $f->field instanceof Part && $f->nullable ? self::refIn($f->field->of, $to) : null;
                if ($ref !== null) {
                    $table = FieldList::row($class)->table;
                    $rows = DB::table($table)->where('scene_id', $scene)->whereNotNull($f->column)->get()->all();
                    $naming = array_filter($rows, static fn (stdClass $r): bool => self::says($r->{$f->column}, $ref) === $name);
                    foreach ($naming as $r) {
                        $out[] = [$table, (int) $r->id, $f->column, null];
                    }
                }
                if ($f->field instanceof Refs && $f->field->to === $to) {
                    array_push($out, ...self::listing($scene, FieldList::row($class)->table, $f->column, $name));
                }
            }
        }

        return $out;
    }

    /** @return list<array{string, int, string, string}> rows that name something in a list, and the list without it */
    private static function listing(int $scene, string $table, string $column, string $name): array
    {
        $out = [];
        foreach (DB::table($table)->where('scene_id', $scene)->where($column, 'like', "%\"{$name}\"%")->orderBy('id')->get() as $row) {
            $left = array_values(array_diff((array) json_decode((string) $row->{$column}, true), [$name]));
            $out[] = [$table, (int) $row->id, $column, json_encode($left, JSON_THROW_ON_ERROR)];
        }

        return $out;
    }

    /**
     * @param  class-string  $class
     * @param  class-string  $to
     */
    private static function refIn(string $class, string $to): ?string
    {
        foreach (FieldList::of($class) as $f) {
            if ($f->field instanceof Ref && $f->field->to === $to && $f->field->needs) {
                return $f->name;
            }
        }

        return null;
    }

    private static function says(mixed $json, string $name): mixed
    {
        $part = is_string($json) ? json_decode($json, true) : null;

        return is_array($part) ? $part[$name] ?? null : null;
    }
}
