<?php

declare(strict_types=1);

namespace App\Edits\Commands;

use App\Edits\EditCommand;
use App\Edits\EditContext;
use App\Edits\RowColumns;
use App\Edits\RowRules;
use CrispReel\Core\Document\Fields\FieldList;

/** Changes fields of a row of some kind. */
final readonly class SetRow implements EditCommand
{
    /**
     * @param  class-string  $class
     * @param  list<string>  $without  fields that stay what they are
     */
    public function __construct(private string $class, private string $label, private array $without = [])
    {
    }

    public function name(): string
    {
        return FieldList::row($this->class)->name().'.set';
    }

    public function rules(): array
    {
        return [FieldList::row($this->class)->name() => 'required'] + RowRules::of($this->class, [], $this->without);
    }

    public function apply(EditContext $scene, array $in): string
    {
        $kind = FieldList::row($this->class);
        $row = $scene->find($kind->table, $in[$kind->name()]);
        $values = RowColumns::changed($this->class, array_diff_key($in, array_flip($this->without)), $scene, $row);
        if ($values !== []) {
            $scene->rows->update($kind->table, (int) $row->id, $values);
        }

        return $this->label;
    }
}
