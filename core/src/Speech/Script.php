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
    public const DOES = ['nod', 'shake', 'blink', ...self::NOISES];

    /** Small noises, which are heard too. */
    public const NOISES = ['breath', 'sigh', 'gasp', 'laugh', 'cough', 'hm', 'sniff'];

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

    /**
     * @return list<array{string, int}> what brackets say, in lower case, and how many words stand before each; "look" is left for
     *   self::look(), and any other word may be the name of a motion
     */
    public static function does(string $text): array
    {
        $out = [];
        $words = 0;
        foreach (self::pieces($text) as $p) {
            if (isset($p['do'])) {
                $out[] = [$p['do'], $words];
            } elseif (isset($p['say'])) {
                $words += (int) preg_match_all('/\S*[\p{L}\p{N}]\S*/u', $p['say']);
            }
        }

        return $out;
    }

    /** Whom or where a bracket has the speaker look; null: it is about something else. */
    public static function look(string $does): ?string
    {
        return preg_match('/^look\s+(?:at\s+)?(?:the\s+)?(.+)$/u', $does, $m) === 1 ? trim($m[1]) : null;
    }

    /** The same without noises, for whoever has them in a recording. */
    public static function withoutNoises(string $text): string
    {
        return (string) preg_replace('/\[\s*(?:'.implode('|', self::NOISES).')\s*\]/iu', ' ', $text);
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
