<?php

declare(strict_types=1);

namespace App\Speech;

use CrispReel\Core\Format\Wave;
use CrispReel\Core\Speech\Phone;
use CrispReel\Core\Speech\Word;

/** What a voice has read: the sound, and when each of its sounds and words is heard, in seconds. */
final readonly class Take
{
    /**
     * @param  list<Phone>  $phones  one after the other, from the beginning to the end of the sound
     * @param  list<Word>  $words  as they were written
     * @param  list<array{string, float}>  $events  what is done between words, and when
     */
    public function __construct(public Wave $wave, public array $phones, public array $words, public array $events = [])
    {
    }
}
