<?php

declare(strict_types=1);

namespace App\Speech;

/** A program that reads text aloud and tells when each sound of it is heard. */
interface Voice
{
    /**
     * Reads a stretch of text in one breath.
     *
     * @param  string  $text  plain words of one language
     *
     * @throws NoVoice when the program is missing, or cannot read this
     */
    public function read(string $text, Manner $manner): Take;
}
