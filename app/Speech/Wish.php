<?php

declare(strict_types=1);

namespace App\Speech;

/** A line that is to be read, or listened to: everything that its sound and times depend on, and its name from that. */
final readonly class Wish
{
    /** Bump when readings are made otherwise: all are made anew. */
    private const VERSION = 4;

    public string $key;

    /**
     * @param  string  $text  as it is to be spoken
     * @param  Recorded|null  $recorded  heard in place of the voice, which only tells what it says
     */
    public function __construct(
        public string $text, public VoiceCard $voice, public string $delivery, public float $pace, public ?Recorded $recorded = null,
    ) {
        $manner = $recorded === null ? [$delivery, $pace] : array_values(get_object_vars($recorded));
        $this->key = hash('sha256', json_encode([
            self::VERSION, $text, array_values(get_object_vars($voice)), ...$manner,
        ], JSON_THROW_ON_ERROR | JSON_INVALID_UTF8_SUBSTITUTE));
    }
}
