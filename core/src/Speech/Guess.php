<?php

declare(strict_types=1);

namespace CrispReel\Core\Speech;

/**
 * A reading without a voice, from the letters alone: so that a line has a length and lips move the moment it is typed, and where
 * no voice can be had. Letters that no rule knows (other scripts) open and close the mouth as syllables do.
 */
final class Guess
{
    /** Letters to sounds; the longest that fits counts. */
    private const SOUNDS = [
        'tch' => ['ch'], 'sch' => ['sh'], 'igh' => ['ay'], 'eau' => ['ow'], 'ch' => ['ch'], 'sh' => ['sh'], 'th' => ['th'],
        'ph' => ['f'], 'wh' => ['w'], 'ng' => ['ng'], 'ck' => ['k'], 'qu' => ['k', 'w'], 'ee' => ['iy'], 'ea' => ['iy'], 'oo' => ['uw'],
        'ou' => ['aw'], 'ow' => ['ow'], 'ai' => ['ey'], 'ay' => ['ey'], 'oi' => ['oy'], 'oy' => ['oy'], 'au' => ['ao'], 'aw' => ['ao'],
        'ie' => ['iy'], 'ei' => ['ey'], 'oa' => ['ow'], 'er' => ['er'], 'ar' => ['aa', 'r'], 'or' => ['ao', 'r'], 'll' => ['l'],
        'mm' => ['m'], 'nn' => ['n'], 'pp' => ['p'], 'bb' => ['b'], 'tt' => ['t'], 'ss' => ['s'], 'ff' => ['f'], 'rr' => ['r'],
        'a' => ['ae'], 'b' => ['b'], 'c' => ['k'], 'd' => ['d'], 'e' => ['eh'], 'f' => ['f'], 'g' => ['g'], 'h' => ['hh'], 'i' => ['ih'],
        'j' => ['jh'], 'k' => ['k'], 'l' => ['l'], 'm' => ['m'], 'n' => ['n'], 'o' => ['aa'], 'p' => ['p'], 'r' => ['r'], 's' => ['s'],
        't' => ['t'], 'u' => ['ah'], 'v' => ['v'], 'w' => ['w'], 'x' => ['k', 's'], 'y' => ['iy'], 'z' => ['z'], 'ä' => ['eh'],
        'ö' => ['er'], 'ü' => ['uw'], 'ß' => ['s'], 'é' => ['ey'], 'è' => ['eh'], 'á' => ['aa'], 'ó' => ['ow'], 'ú' => ['uw'],
        'í' => ['iy'],
    ];

    /** Seconds of a vowel, of another sound, before and after all, at a comma, at a stop; at an even pace. */
    private const VOWEL = 0.105;

    private const OTHER = 0.068;

    private const LEAD = 0.2;

    private const TAIL = 0.15;

    private const COMMA = 0.2;

    private const STOP = 0.38;

    public static function of(string $text, float $pace = 1.0): Reading
    {
        $phones = [new Phone(Phone::PAUSE, 0.0, self::LEAD)];
        $words = [];
        $t = self::LEAD;
        $all = preg_split('/\s+/u', trim($text), -1, PREG_SPLIT_NO_EMPTY);
        foreach ($all === false ? [] : $all as $written) {
            $sounds = self::sounds($written);
            if ($sounds === []) {
                continue;
            }
            $from = $t;
            $stress = true;
            foreach ($sounds as $name) {
                $isVowel = (new Phone($name, 0.0, 0.0))->isVowel();
                $to = $t + ($isVowel ? self::VOWEL : self::OTHER) / $pace;
                $phones[] = new Phone($name, $t, $to, count($words), $stress, $stress && mb_strlen($written) > 4);
                $stress = $stress && ! $isVowel;
                $t = $to;
            }
            $words[] = new Word($written, $from, $t);
            $pause = match (1) {
                preg_match('/[.!?…]["\')]*$/u', $written) => self::STOP, preg_match('/[,;:–-]$/u', $written) => self::COMMA, default => 0.0,
            } / $pace;
            if ($pause > 0.0) {
                $phones[] = new Phone(Phone::PAUSE, $t, $t + $pause);
                $t += $pause;
            }
        }
        $phones[] = new Phone(Phone::PAUSE, $t, $t + self::TAIL);

        return new Reading($t + self::TAIL, $phones, $words, guessed: true);
    }

    /** @return list<string> */
    private static function sounds(string $word): array
    {
        $letters = mb_strtolower((string) preg_replace('/[^\p{L}\p{N}]/u', '', $word));
        // A silent e at the end.
        $letters = (string) preg_replace('/(?<=[aeiouy][^aeiouy])e$/u', '', $letters);
        $out = [];
        while ($letters !== '') {
            [$sounds, $used] = self::first($letters);
            array_push($out, ...$sounds);
            $letters = mb_substr($letters, $used);
        }

        return $out;
    }

    /** @return array{list<string>, int} sounds, and how many letters they are */
    private static function first(string $letters): array
    {
        for ($n = 3; $n > 0; $n--) {
            $head = mb_substr($letters, 0, $n);
            if (mb_strlen($head) === $n && isset(self::SOUNDS[$head])) {
                return [self::SOUNDS[$head], $n];
            }
        }

        // A digit is a word of its own, an unknown letter a syllable.
        return [ctype_digit(mb_substr($letters, 0, 1)) ? ['t', 'uw'] : ['d', 'aa'], 1];
    }
}
