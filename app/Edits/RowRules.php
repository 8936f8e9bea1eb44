<?php

declare(strict_types=1);

namespace App\Edits;

use CrispReel\Core\Document\Fields\Choice;
use CrispReel\Core\Document\Fields\Choices;
use CrispReel\Core\Document\Fields\Field;
use CrispReel\Core\Document\Fields\FieldList;
use CrispReel\Core\Document\Fields\Id;
use CrispReel\Core\Document\Fields\Listed;
use CrispReel\Core\Document\Fields\Many;
use CrispReel\Core\Document\Fields\Number;
use CrispReel\Core\Document\Fields\Numbers;
use CrispReel\Core\Document\Fields\Pairs;
use CrispReel\Core\Document\Fields\Part;
use CrispReel\Core\Document\Fields\Refs;
use CrispReel\Core\Document\Fields\Text;
use CrispReel\Core\Document\Fields\Turn;
use CrispReel\Core\Document\Fields\Values;
use CrispReel\Core\Document\Fields\Vector;
use CrispReel\Core\Document\Fields\Whole;
use CrispReel\Core\Document\Fields\Yes;

/** What an edit command takes for a row, as rules of Laravel's validator, from the list of the row's fields. */
final class RowRules
{
    /** Metres, either way, where a place or a vector does not say less. */
    private const FAR = 100_000;

    /**
     * @param  class-string  $class
     * @param  list<string>  $needed  fields that must be given
     * @param  list<string>  $without  fields that the command does not take
     * @return array<string, list<string>>
     */
    public static function of(string $class, array $needed = [], array $without = []): array
    {
        $out = [];
        foreach (FieldList::of($class) as $f) {
            if (! $f->field instanceof Id && ! in_array($f->name, $without, true)) {
                $out += self::field($f->name, $f, in_array($f->name, $needed, true) ? ['required'] : ['sometimes']);
            }
        }

        return $out;
    }

    /**
     * Of some fields only.
     *
     * @param  class-string  $class
     * @return array<string, list<string>>
     */
    public static function only(string $class, string ...$names): array
    {
        $others = array_diff(array_column(FieldList::of($class), 'name'), $names);

        return self::of($class, [], array_values($others));
    }

    /**
     * Of a part that is set field by field.
     *
     * @param  class-string  $class
     * @return array<string, list<string>>
     */
    public static function inside(string $at, string $class): array
    {
        $out = [];
        foreach (self::of($class) as $name => $rules) {
            $out["{$at}.{$name}"] = $rules;
        }

        return $out;
    }

    /**
     * @param  list<string>  $presence
     * @return array<string, list<string>>
     */
    private static function field(string $at, Listed $f, array $presence): array
    {
        $empty = $f->nullable || (! $f->required && ($f->field instanceof Text || $f->field instanceof Part));

        return [$at => [...$presence, ...($empty && $presence !== ['required'] ? ['nullable'] : []), ...self::kind($f->field)]]
            + self::within($at, $f->field);
    }

    /** @return list<string> */
    private static function kind(Field $field): array
    {
        return match (true) {
            $field instanceof Whole => ['integer', "between:{$field->least},{$field->most}"],
            $field instanceof Number => ['numeric', "between:{$field->least},{$field->most}"],
            $field instanceof Choice => ['in:'.implode(',', $field->among)],
            $field instanceof Text => ['string', "max:{$field->most}", ...($field->form === null ? [] : ["regex:{$field->form}"])],
            $field instanceof Yes => ['boolean'],
            $field instanceof Vector => ['array', 'size:3'],
            $field instanceof Turn => ['array', 'size:4'],
            $field instanceof Numbers => ['array', "size:{$field->count}"],
            $field instanceof Pairs => ['array', "min:{$field->least}", "max:{$field->most}"],
            $field instanceof Choices => ['array'],
            $field instanceof Refs, $field instanceof Many, $field instanceof Values && $field->ranges === [] => [
                'array', "max:{$field->most}",
            ],
            $field instanceof Values => ['array:'.implode(',', array_keys($field->ranges))],
            $field instanceof Part => ['array:'.implode(',', array_column(FieldList::of($field->of), 'name'))],
            default => [],
        };
    }

    /**
     * Rules of what lies within a field.
     *
     * @return array<string, list<string>>
     */
    private static function within(string $at, Field $field): array
    {
        $far = ['numeric', 'between:-'.self::FAR.','.self::FAR];

        return match (true) {
            $field instanceof Vector => ["{$at}.*" => ['numeric', "between:-{$field->most},{$field->most}"]],
            $field instanceof Turn => ["{$at}.*" => ['numeric', 'between:-1.01,1.01']],
            $field instanceof Numbers => ["{$at}.*" => $far],
            $field instanceof Pairs => ["{$at}.*" => ['array', 'size:2'], "{$at}.*.*" => $far],
            $field instanceof Refs => ["{$at}.*" => ['required']],
            $field instanceof Choices => ["{$at}.*" => ['in:'.implode(',', $field->among)]],
            $field instanceof Values => self::ranges($at, $field),
            $field instanceof Part => self::part($at, $field->of, "required_with:{$at}"),
            $field instanceof Many => self::part("{$at}.*", $field->of, 'required'),
            default => [],
        };
    }

    /** @return array<string, list<string>> */
    private static function ranges(string $at, Values $field): array
    {
        $out = [];
        foreach ($field->ranges as $name => [$least, $most]) {
            $out["{$at}.{$name}"] = ['sometimes', 'numeric', "between:{$least},{$most}"];
        }

        return $out;
    }

    /**
     * What is said of a part as nothing goes back to what it is by itself.
     *
     * @param  class-string  $class
     * @return array<string, list<string>>
     */
    private static function part(string $at, string $class, string $needed): array
    {
        $out = [];
        foreach (FieldList::of($class) as $f) {
            $out += self::field("{$at}.{$f->name}", $f, $f->required ? [$needed] : ['sometimes', 'nullable']);
        }

        return $out;
    }
}
