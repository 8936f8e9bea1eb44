<?php

declare(strict_types=1);

namespace CrispReel\Core\Document\Fields;

use Attribute;
use CrispReel\Core\Document\Input;
use CrispReel\Core\Document\UnableToReadDocument;

/** A place in the scene's time. At another frame rate it goes to the frame nearest to its time. */
#[Attribute(Attribute::TARGET_PROPERTY)]
final readonly class Frame extends Whole
{
    /**
     * @param  string|null  $after  the frame that this one must come after
     * @param  string  $says  what is told when it does not
     */
    public function __construct(
        int $least = 0,
        public ?string $after = null,
        public string $says = 'it ends after it begins',
        ?string $column = null,
    ) {
        parent::__construct($least, 1_000_000, $column);
    }

    public function read(Input $in, string $name): int
    {
        $frame = parent::read($in, $name);
        if ($this->after !== null && $frame <= $in->whole($this->after, 0)) {
            throw UnableToReadDocument::at($in->path($name), $this->says);
        }

        return $frame;
    }
}
