<?php

declare(strict_types=1);

namespace CrispReel\Core\Speech;

/**
 * A line as it is written: words, *words with weight*, and in square brackets what is done between words. What a bracket says that
 * nobody knows is shown with the line and changes nothing.
 *
 * @phpstan-type Piece array{say: string}|array{pause: float}|array{do: string}
 */
final class Script
{
    /** What may stand in brackets besides a pause. */
    public const DOES = ['nod', 'shake', 'breath', 'blink'];

    private const LONGEST = 60.0;

    /** @return list<Piece> in the order in which they come */
    public static function pieces(string $text): array
    {
        $out = [];
        $parts = preg_split('/(\[[^\[\]]*\])/u', $text, -1, PREG_SPLIT_DELIM_CAPTURE | PREG_SPLIT_NO_EMPTY);
        foreach ($parts === false ? [] : $parts as $part) {
            if (preg_match('/^\[\s*(\d+(?:[.,]\d+)?)\s*(?:s|sec|seconds?)?\s*\]$/u', $part, $m) === 1) {
                $out[] = ['pause' => min(self::LONGEST, (float) str_replace(',', '.', $m[1]))];
            } elseif (str_starts_with($part, '[')) {
                $out[] = ['do' => mb_strtolower(trim($part, "[] \t\n"))];
            } elseif (self::plain($part) !== '') {
                $out[] = ['say' => self::plain($part)];
            }
        }

        return $out;
    }

    /** What is heard of it, as subtitles show it. */
    public static function heard(string $text): string
    {
        return self::plain((string) preg_replace('/\[[^\[\]]*\]/u', ' ', $text));
    }

    /** @return list<string> what brackets say that nobody knows */
    public static function unknown(string $text): array
    {
        $out = [];
        foreach (self::pieces($text) as $p) {
            if (isset($p['do']) && ! in_array($p['do'], self::DOES, true)) {
                $out[] = $p['do'];
            }
        }

        return $out;
    }

    /** @return list<string> words between asterisks, in lower case without marks */
    public static function weighty(string $text): array
    {
        preg_match_all('/\*([^*]+)\*/u', $text, $m);
        $out = [];
        foreach ($m[1] as $some) {
            foreach (preg_split('/\s+/u', $some, -1, PREG_SPLIT_NO_EMPTY) ?: [] as $word) {
                $out[] = self::bare($word);
            }
        }

        return $out;
    }

    /** A word without what stands around it, in lower case. */
    public static function bare(string $word): string
    {
        return mb_strtolower((string) preg_replace('/^[^\p{L}\p{N}]+|[^\p{L}\p{N}]+$/u', '', $word));
    }

    public static function asks(string $text): bool
    {
        return preg_match('/\?["\'”’)\s]*$/u', self::heard($text)) === 1;
    }

    public static function shouts(string $text): bool
    {
        return preg_match('/!["\'”’)\s]*$/u', self::heard($text)) === 1;
    }

    private static function plain(string $text): string
    {
        return trim((string) preg_replace('/\s+/u', ' ', str_replace('*', '', $text)));
    }
}
