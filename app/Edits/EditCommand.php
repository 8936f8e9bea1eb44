<?php

declare(strict_types=1);

namespace App\Edits;

/** One kind of change of a scene: its name, what it takes, and what it does. Its inverse is recorded, not written. */
interface EditCommand
{
    public function name(): string;

    /** @return array<string, mixed> Laravel validation rules of the payload */
    public function rules(): array;

    /**
     * @param  array<string, mixed>  $in  validated
     * @return string what was done, for the history
     */
    public function apply(EditContext $scene, array $in): string;
}
