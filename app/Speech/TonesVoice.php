<?php

declare(strict_types=1);

namespace App\Speech;

use CrispReel\Core\Format\Wave;
use CrispReel\Core\Speech\Guess;
use CrispReel\Core\Speech\Phone;

/** Tones in place of sounds, each exactly as long as it is said to be: for measuring what depends on times. */
final class TonesVoice implements Voice
{
    private const RATE = 16000;

    public function read(string $text, Manner $manner): Take
    {
        $guess = Guess::of($text, $manner->pace);
        if ($guess->words === []) {
            throw new NoVoice('There is nothing in it that could be said.');
        }
        $wave = Wave::silence(self::RATE, $guess->seconds);
        foreach ($guess->phones as $p) {
            $hertz = $p->isPause() ? 0.0 : (200.0 + 12.0 * (crc32($p->name) % 40)) * $manner->pitch;
            for ($i = (int) ceil($p->from * self::RATE), $end = min(
                count($wave->samples), (int) ceil($p->to * self::RATE),
            ); $i < $end; $i++) {
                $wave->samples[$i] = $p->name === Phone::PAUSE ? 0.0 : 0.3 * sin(2 * M_PI * $hertz * $i / self::RATE);
            }
        }

        return new Take($wave, $guess->phones, $guess->words);
    }
}
