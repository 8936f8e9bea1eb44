<?php

declare(strict_types=1);

namespace App\Edits\Commands;

use App\Edits\EditCommand;
use App\Edits\EditContext;
use App\Edits\RowColumns;
use App\Edits\RowRules;
use Closure;
use CrispReel\Core\Document\Fields\FieldList;
use stdClass;

/** Changes fields of a row of some kind. */
final readonly class SetRow implements EditCommand
{
    /**
     * @param  class-string  $class
     * @param  list<string>  $without  fields that stay what they are
     * @param  (Closure(EditContext, stdClass): void)|null  $guard  refuses what may not be
     */
    public function __construct(
        private string $class,
        private string $label,
        private array $without = [],
        private ?Closure $guard = null,
    ) {
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
        $this->guard?->__invoke($scene, $row);
        $values = RowColumns::changed($this->class, array_diff_key($in, array_flip($this->without)), $scene, $row);
        if ($values !== []) {
            $scene->rows->update($kind->table, (int) $row->id, $values);
        }

        return $this->label;
    }
}
