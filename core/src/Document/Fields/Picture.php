<?php

declare(strict_types=1);

namespace CrispReel\Core\Document\Fields;

use Attribute;
use CrispReel\Core\Document\Input;
use CrispReel\Core\Document\UnableToReadDocument;

/** A picture: by its SHA-256 in a document, by the number of its asset in a stored row. */
#[Attribute(Attribute::TARGET_PROPERTY)]
final readonly class Picture extends Field
{
    public function read(Input $in, string $name): string
    {
        $hash = $in->text($name, null, 64);

        return preg_match('/^[0-9a-f]{64}$/', $hash) === 1
            ? $hash
            : throw UnableToReadDocument::at($in->path($name), 'it is not the hash of a picture');
    }

    public function schema(): array
    {
        return ['type' => 'string', 'pattern' => '^[0-9a-f]{64}$'];
    }

    public function holds(): Holds
    {
        return Holds::Whole;
    }
}
