<?php

declare(strict_types=1);

namespace CrispReel\Core\Speech;

/**
 * Sounds as an ASCII form of the phonetic alphabet writes them (after Kirshenbaum), told in the sounds that the mouth knows. Marks
 * of stress, length and variants count for nothing; a sound that no mouth here knows is the one most like it.
 */
final class Ipa
{
    /** The longest that fits counts. */
    private const SOUNDS = [
        'tS' => ['ch'], 'dZ' => ['jh'], 'ts' => ['t', 's'], 'dz' => ['d', 'z'], 'pf' => ['p', 'f'], 'aI@' => ['ay', 'ax'],
        'aU@' => ['aw', 'ax'], 'aI' => ['ay'], 'aU' => ['aw'], 'eI' => ['ey'], 'oU' => ['ow'], 'OI' => ['oy'], 'OY' => ['oy'],
        'I@' => ['ih', 'ax'], 'e@' => ['eh', 'ax'], 'U@' => ['uh', 'ax'], 'i@' => ['iy', 'ax'], 'O@' => ['ao', 'r'], 'A@' => ['aa', 'r'],
        'o@' => ['ao', 'r'], 'A~' => ['aa'], 'O~' => ['ao'], 'E~' => ['ae'], 'W~' => ['er'], '3:' => ['er'], '@L' => ['ax', 'l'],
        '_:' => [Phone::PAUSE], '_' => [Phone::PAUSE], 'a' => ['aa'], 'A' => ['aa'], 'V' => ['ah'], '0' => ['aa'], 'Q' => ['aa'],
        'O' => ['ao'], 'o' => ['ao'], 'u' => ['uw'], 'U' => ['uh'], 'i' => ['iy'], 'I' => ['ih'], 'e' => ['ey'], 'E' => ['eh'],
        '@' => ['ax'], '3' => ['er'], 'y' => ['uw'], 'Y' => ['uh'], 'W' => ['er'], '8' => ['ax'], '&' => ['ae'], 'p' => ['p'], 'b' => ['b'],
        't' => ['t'], 'd' => ['d'], 'k' => ['k'], 'g' => ['g'], 'f' => ['f'], 'v' => ['v'], 'T' => ['th'], 'D' => ['dh'], 's' => ['s'],
        'z' => ['z'], 'S' => ['sh'], 'Z' => ['zh'], 'C' => ['sh'], 'x' => ['k'], 'X' => ['k'], 'h' => ['hh'], 'm' => ['m'], 'n' => ['n'],
        'N' => ['ng'], 'l' => ['l'], 'L' => ['l'], 'r' => ['r'], 'R' => ['r'], 'w' => ['w'], 'j' => ['y'], 'q' => ['k'], 'c' => ['k'],
        'B' => ['v'], 'P' => ['f'], 'M' => ['m'], 'J' => ['y'],
    ];

    /** @return list<string> at least one; a sound that nobody knows is a weak vowel, a mark alone a pause of no length */
    public static function sounds(string $name): array
    {
        $rest = $name;
        $out = [];
        while ($rest !== '') {
            $used = 1;
            for ($n = min(3, strlen($rest)); $n > 0; $n--) {
                if (isset(self::SOUNDS[substr($rest, 0, $n)])) {
                    array_push($out, ...self::SOUNDS[substr($rest, 0, $n)]);
                    $used = $n;
                    break;
                }
            }
            $rest = substr($rest, $used);
        }

        return match (true) {
            $out !== [] => $out, preg_match('/[A-Za-z]/', $name) === 1 => ['ax'], default => [Phone::PAUSE],
        };
    }
}
