<?php

declare(strict_types=1);

namespace App\Scenes;

use CrispReel\Core\Document\AssetRef;
use CrispReel\Core\Document\Fields\Choice;
use CrispReel\Core\Document\Fields\FieldList;
use CrispReel\Core\Document\Fields\Holds;
use CrispReel\Core\Document\Fields\Id;
use CrispReel\Core\Document\Fields\Listed;
use CrispReel\Core\Document\Fields\Ref;
use CrispReel\Core\Document\Fields\Text;
use CrispReel\Core\Document\Fields\Vector;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Database\Schema\ColumnDefinition;
use Illuminate\Support\Facades\Schema;

/**
 * Tables of a scene's rows as their fields have them. Completed after every migration: a new field gets its column and a new
 * kind of row its table by being said once. What is renamed or goes takes a migration.
 */
final class RowTables
{
    /** @return list<string> what was added, as "beats.energy" */
    public static function complete(): array
    {
        $added = [];
        foreach (Schema::hasTable('scenes') ? SceneRows::classes() : [] as $table => $class) {
            if (! Schema::hasTable($table)) {
                Schema::create($table, static function (Blueprint $t): void {
                    $t->id();
                    $t->foreignId('scene_id')->constrained()->cascadeOnDelete();
                });
            }
            $there = Schema::getColumnListing($table);
            $missing = array_diff_key(self::columns($class), array_flip($there));
            if ($missing !== []) {
                Schema::table($table, static function (Blueprint $t) use ($missing): void {
                    foreach ($missing as $column => $field) {
                        self::column($t, $column, $field);
                    }
                });
            }
            array_push($added, ...array_map(static fn (string $c): string => "{$table}.{$c}", array_keys($missing)));
        }

        return $added;
    }

    /**
     * @param  class-string  $class
     * @return array<string, Listed>
     */
    public static function columns(string $class): array
    {
        $out = [];
        foreach (FieldList::of($class) as $f) {
            if ($f->field instanceof Vector && $f->field->columns !== null) {
                $out += array_fill_keys($f->field->columns, $f);
            } elseif (! $f->field instanceof Id) {
                $out[$f->column] = $f;
            }
        }

        return $out;
    }

    private static function column(Blueprint $t, string $column, Listed $f): void
    {
        if ($f->field instanceof Ref) {
            $table = $f->field->to === AssetRef::class ? 'assets' : FieldList::row($f->field->to)->table;
            $ref = $t->foreignId($column)->nullable($f->nullable)->constrained($table);
            $f->field->owner || $f->field->needs ? $ref->cascadeOnDelete() : $ref->restrictOnDelete();

            return;
        }
        $made = self::typed($t, $column, $f)->nullable($f->nullable || $f->field->holds() === Holds::Json);
        if (is_scalar($f->default) && $f->field->holds() !== Holds::Json) {
            $made->default($f->default);
        }
    }

    private static function typed(Blueprint $t, string $column, Listed $f): ColumnDefinition
    {
        return match (true) {
            $f->field instanceof Vector && $f->field->columns !== null => $t->double($column),
            $f->field instanceof Choice => $t->string($column, 40),
            $f->field instanceof Text => $f->field->most > 1000 ? $t->text($column) : $t->string($column, $f->field->most),
            $f->field->holds() === Holds::Whole => $t->integer($column),
            $f->field->holds() === Holds::YesNo => $t->boolean($column),
            $f->field->holds() === Holds::Number => $t->double($column),
            default => $t->json($column),
        };
    }
}
