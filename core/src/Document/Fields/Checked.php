<?php

declare(strict_types=1);

namespace CrispReel\Core\Document\Fields;

use CrispReel\Core\Document\Input;
use CrispReel\Core\Document\UnableToReadDocument;

/** A value whose fields must agree with each other, besides being right each for itself. */
interface Checked
{
    /**
     * @param  Input  $in  what it was read from, for the place in the message
     *
     * @throws UnableToReadDocument
     */
    public function check(Input $in): void;
}
