<?php

declare(strict_types=1);

namespace CrispReel\Core\Document\Fields;

use Attribute;

/** A length of time in frames. At another frame rate it keeps its time. */
#[Attribute(Attribute::TARGET_PROPERTY)]
final readonly class Frames extends Whole
{
}
