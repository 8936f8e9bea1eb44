<?php

declare(strict_types=1);

namespace App\Scenes;

use CrispReel\Core\Document\Document;
use CrispReel\Core\Document\Fields\Choice;
use CrispReel\Core\Document\Fields\Choices;
use CrispReel\Core\Document\Fields\Field;
use CrispReel\Core\Document\Fields\FieldList;
use CrispReel\Core\Document\Fields\Listed;
use CrispReel\Core\Document\Fields\Many;
use CrispReel\Core\Document\Fields\Number;
use CrispReel\Core\Document\Fields\Numbers;
use CrispReel\Core\Document\Fields\Pairs;
use CrispReel\Core\Document\Fields\Part;
use CrispReel\Core\Document\Fields\Picture;
use CrispReel\Core\Document\Fields\Ref;
use CrispReel\Core\Document\Fields\Refs;
use CrispReel\Core\Document\Fields\Text;
use CrispReel\Core\Document\Fields\Turn;
use CrispReel\Core\Document\Fields\Values;
use CrispReel\Core\Document\Fields\Vector;
use CrispReel\Core\Document\Fields\Whole;
use CrispReel\Core\Document\Fields\Yes;
use CrispReel\Core\Document\Mix;
use CrispReel\Core\Document\Wind;

/** The rows of a scene as TypeScript: shapes by which answers are checked, their types, and the ranges of their numbers. */
final class RowTypes
{
    private const HEAD = <<<'TS'
        /** The rows of a scene as the page gets them. Written by `bin/reel reel:fields` from the core's fields; not changed by hand. */

        import * as v from 'valibot';

        export const Vec3 = v.tuple([v.number(), v.number(), v.number()]);
        export type Vec3 = v.InferOutput<typeof Vec3>;

        export const Quat = v.tuple([v.number(), v.number(), v.number(), v.number()]);
        export type Quat = v.InferOutput<typeof Quat>;


        TS;

    /** @var array<class-string, string> written so far, parts before what holds them */
    private array $shapes = [];

    /** @var array<string, array<string, array{float|int, float|int}>> */
    private array $ranges = [];

    public static function write(): string
    {
        $self = new self;
        $tables = [];
        foreach ([...array_values(Document::ROWS), Wind::class, Mix::class] as $class) {
            $self->shape($class, rows: true);
        }
        foreach (SceneRows::classes() as $table => $class) {
            $tables[] = "    {$table}: v.array(".self::name($class).'),';
        }

        return self::HEAD.implode("\n", $self->shapes)
            ."\nexport const Rows = v.object({\n".implode("\n", $tables)."\n});\nexport type Rows = v.InferOutput<typeof Rows>;\n"
            ."\n/** Least and most of each number. */\nexport const ranges = ".self::literal($self->ranges)." as const;\n";
    }

    /** @param  class-string  $class */
    private static function name(string $class): string
    {
        return substr($class, (int) strrpos($class, '\\') + 1).'Row';
    }

    /**
     * @param  class-string  $class
     * @param  bool  $rows  with every field there; else a part of a row, which says what is set of it
     */
    private function shape(string $class, bool $rows): string
    {
        $name = self::name($class);
        if (isset($this->shapes[$class])) {
            return $name;
        }
        $lines = [];
        foreach (FieldList::of($class) as $f) {
            // Within a part another row goes by its letter and number.
            $lines[] = $f->field instanceof Ref && ! $rows
                ? "    {$f->name}: v.optional(v.nullable(v.string())),"
                : '    '.StoredRow::pageName($f).': '.$this->field($f, $rows).',';
            if ($f->field instanceof Number || $f->field instanceof Whole) {
                $this->ranges[$name][$f->name] = [$f->field->least, $f->field->most];
            }
        }
        if ($class === Document::ROWS['items']) {
            $lines[] = '    /** The version of its asset that it stays at; null: it follows the newest. */';
            $lines[] = '    pinned: v.nullable(v.number()),';
        }
        if ($class === Document::ROWS['shots']) {
            $lines[] = '    sort: v.number(),';
        }
        $this->shapes[$class] = "export const {$name} = v.object({\n".implode("\n", $lines)."\n});\n"
            ."export type {$name} = v.InferOutput<typeof {$name}>;\n";

        return $name;
    }

    private function field(Listed $f, bool $rows): string
    {
        $type = $this->type($f->field);
        $empty = $f->nullable || ($rows && $f->field instanceof Text && $f->default === '' && $f->name === 'label');
        $type = $empty ? "v.nullable({$type})" : $type;

        return $rows || $f->required ? $type : "v.optional({$type})";
    }

    private function type(Field $field): string
    {
        return match (true) {
            $field instanceof Text => 'v.string()',
            $field instanceof Choice => 'v.picklist(['.self::quoted($field->among).'])',
            $field instanceof Refs => 'v.array(v.string())',
            $field instanceof Choices => 'v.array(v.picklist(['.self::quoted($field->among).']))',
            $field instanceof Yes => 'v.boolean()',
            $field instanceof Vector => 'Vec3',
            $field instanceof Turn => 'Quat',
            $field instanceof Numbers => 'v.tuple(['.implode(', ', array_fill(0, $field->count, 'v.number()')).'])',
            $field instanceof Pairs => 'v.array(v.tuple([v.number(), v.number()]))',
            $field instanceof Values && $field->ranges === [] => 'v.record(v.string(), v.union([v.number(), v.string()]))',
            $field instanceof Values => 'v.record(v.string(), v.number())',
            $field instanceof Part => $this->shape($field->of, rows: false),
            $field instanceof Many && $field->by !== null => 'v.record(v.string(), v.partial('.$this->shape($field->of, rows: false).'))',
            $field instanceof Many => 'v.array('.$this->shape($field->of, rows: true).')',
            $field instanceof Picture => 'v.number()',
            default => 'v.number()',
        };
    }

    /** @param  list<string>  $words */
    private static function quoted(array $words): string
    {
        return implode(', ', array_map(static fn (string $w): string => "'{$w}'", $words));
    }

    /** @param  array<string, array<string, array{float|int, float|int}>>  $ranges */
    private static function literal(array $ranges): string
    {
        ksort($ranges);
        $out = "{\n";
        foreach ($ranges as $name => $fields) {
            $out .= "    {$name}: {\n";
            foreach ($fields as $field => [$least, $most]) {
                $out .= sprintf("        %s: [%s, %s],\n", $field, json_encode($least + 0), json_encode($most + 0));
            }
            $out .= "    },\n";
        }

        return $out.'}';
    }
}
