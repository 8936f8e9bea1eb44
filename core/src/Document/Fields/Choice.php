<?php

declare(strict_types=1);

namespace CrispReel\Core\Document\Fields;

use Attribute;
use CrispReel\Core\Document\Input;

/** One of some words. */
#[Attribute(Attribute::TARGET_PROPERTY)]
final readonly class Choice extends Field
{
    /** @param  list<string>  $among */
    public function __construct(public array $among, ?string $column = null)
    {
        parent::__construct($column);
    }

    public function read(Input $in, string $name): string
    {
        return $in->choice($name, $this->among);
    }

    public function schema(): array
    {
        return ['enum' => $this->among];
    }

    public function holds(): Holds
    {
        return Holds::Text;
    }
}
