<?php

declare(strict_types=1);

namespace App\Speech;

/** Words that a production's voices say otherwise than they are written. */
final class SayAs
{
    /** @param  array<array-key, mixed>  $words  spoken by written, in lower case */
    public static function of(string $text, array $words): string
    {
        foreach ($words as $written => $spoken) {
            if (is_string($spoken) && (string) $written !== '') {
                $text = (string) preg_replace(
                    '/(?<![\p{L}\p{N}])'.preg_quote((string) $written, '/').'(?![\p{L}\p{N}])/iu', $spoken, $text,
                );
            }
        }

        return $text;
    }
}
