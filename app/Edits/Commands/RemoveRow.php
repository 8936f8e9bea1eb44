<?php

declare(strict_types=1);

namespace App\Edits\Commands;

use App\Edits\EditCommand;
use App\Edits\EditContext;
use Closure;
use CrispReel\Core\Document\Fields\FieldList;
use stdClass;

/** Takes a row of some kind away, with what cannot be without it. */
final readonly class RemoveRow implements EditCommand
{
    /**
     * @param  class-string  $class
     * @param  (Closure(EditContext, stdClass): void)|null  $guard  refuses what may not be
     */
    public function __construct(private string $class, private string $label, private ?Closure $guard = null)
    {
    }

    public function name(): string
    {
        return FieldList::row($this->class)->name().'.remove';
    }

    public function rules(): array
    {
        return [FieldList::row($this->class)->name() => 'required'];
    }

    public function apply(EditContext $scene, array $in): string
    {
        $kind = FieldList::row($this->class);
        $row = $scene->find($kind->table, $in[$kind->name()]);
        $this->guard?->__invoke($scene, $row);
        $scene->remove($this->class, (int) $row->id);

        return $this->label;
    }
}
