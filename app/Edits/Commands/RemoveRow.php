<?php

declare(strict_types=1);

namespace App\Edits\Commands;

use App\Edits\EditCommand;
use App\Edits\EditContext;
use CrispReel\Core\Document\Fields\FieldList;

/** Takes a row of some kind away, with what cannot be without it. */
final readonly class RemoveRow implements EditCommand
{
    /** @param  class-string  $class */
    public function __construct(private string $class, private string $label)
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
        $scene->remove($this->class, (int) $scene->find($kind->table, $in[$kind->name()])->id);

        return $this->label;
    }
}
