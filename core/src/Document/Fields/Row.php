<?php

declare(strict_types=1);

namespace CrispReel\Core\Document\Fields;

use Attribute;

/** A kind of row that a scene keeps. */
#[Attribute(Attribute::TARGET_CLASS)]
final readonly class Row
{
    /**
     * @param  string  $letter  before the numbers of its ids in documents
     * @param  string  $word  what messages call one; its commands begin with it
     * @param  string  $order  column in whose order they come
     */
    public function __construct(public string $table, public string $letter, public string $word, public string $order = 'id')
    {
    }

    /** The word as a name: touchUp. */
    public function name(): string
    {
        return lcfirst(str_replace('-', '', ucwords($this->word, '-')));
    }
}
