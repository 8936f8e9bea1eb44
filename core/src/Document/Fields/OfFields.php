<?php

declare(strict_types=1);

namespace CrispReel\Core\Document\Fields;

use CrispReel\Core\Document\Input;
use CrispReel\Core\Document\UnableToReadDocument;

/** Reading and writing of a value by the list of its fields. */
trait OfFields
{
    /** @throws UnableToReadDocument naming the place */
    public static function from(Input $in): self
    {
        return FieldList::read(self::class, $in);
    }

    /** @return array<string, mixed> as JSON holds it */
    public function toArray(): array
    {
        return FieldList::write($this);
    }
}
