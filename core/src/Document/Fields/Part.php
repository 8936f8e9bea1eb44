<?php

declare(strict_types=1);

namespace CrispReel\Core\Document\Fields;

use Attribute;
use CrispReel\Core\Document\Input;

/** A value with fields of its own. */
#[Attribute(Attribute::TARGET_PROPERTY)]
final readonly class Part extends Field
{
    /**
     * @param  class-string  $of
     * @param  bool  $sparse  only what differs from the defaults is written, and a change leaves the rest as it is
     */
    public function __construct(public string $of, public bool $sparse = false)
    {
        parent::__construct();
    }

    public function read(Input $in, string $name): object
    {
        return FieldList::read($this->of, $in->child($name));
    }

    public function write(mixed $value): mixed
    {
        if (! is_object($value)) {
            return null;
        }

        return $this->sparse ? (object) FieldList::differing($value) : FieldList::write($value);
    }

    public function schema(): array
    {
        return JsonSchema::ref($this->of);
    }

    public function holds(): Holds
    {
        return Holds::Json;
    }
}
