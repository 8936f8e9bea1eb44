<?php

declare(strict_types=1);

namespace CrispReel\Core\Document\Fields;

use Attribute;
use CrispReel\Core\Document\Input;

/** Any of some words. */
#[Attribute(Attribute::TARGET_PROPERTY)]
final readonly class Choices extends Field
{
    /** @param  list<string>  $among */
    public function __construct(public array $among)
    {
        parent::__construct();
    }

    /** @return list<string> */
    public function read(Input $in, string $name): array
    {
        return $in->choices($name, $this->among);
    }

    public function schema(): array
    {
        return ['type' => 'array', 'items' => ['enum' => $this->among]];
    }

    public function holds(): Holds
    {
        return Holds::Json;
    }
}
