<?php

declare(strict_types=1);

namespace CrispReel\Core\Motion\Model;

use CrispReel\Core\Math\Noise;

/**
 * What hands do with words. A line is spread over the time of the talk by its syllables; words that mean something to the
 * hands (you, me, no, big, stop ...) get the stroke for it, words set between asterisks get one in any case.
 *
 * @phpstan-type Stroke array{t: float, from: string, to: string, times: int, hold: float, seconds: float, size: float}
 * @phpstan-type Spoken array{at: float, until: float, word: string, marked: bool}
 */
final class Strokes
{
    /** By sense: pose before, pose after, how often, hands (1 one, 2 both), nod, shake and tilt of the head (degrees), brows. */
    public const SENSES = [
        'beat' => ['middle', 'beat', 1, 1, 5, 0, 0, 0.3], 'you' => ['in', 'you', 1, 1, 4, 0, 0, 0.4],
        'me' => ['low', 'chest', 1, 1, 3, 0, 3, 0.2], 'we' => ['in', 'gather', 1, 2, 3, 0, 0, 0.3],
        'there' => ['middle', 'point', 1, 1, 2, 8, 0, 0.5], 'here' => ['middle', 'down', 2, 1, 6, 0, 0, 0.2],
        'up' => ['middle', 'up', 1, 1, -5, 0, 0, 0.7], 'down' => ['middle', 'press', 1, 2, 6, 0, 0, 0.0],
        'big' => ['in', 'wide', 1, 2, -2, 0, 0, 0.8], 'small' => ['middle', 'pinch', 2, 1, 3, 0, 4, 0.1],
        'no' => ['across', 'cut', 1, 2, 0, 14, 0, 0.0], 'yes' => ['middle', 'beat', 2, 1, 9, 0, 0, 0.4],
        'stop' => ['in', 'stop', 1, 1, -2, 0, 0, 0.6], 'away' => ['in', 'away', 1, 1, 0, 10, 3, 0.2],
        'come' => ['you', 'in', 2, 1, 4, 0, 0, 0.4], 'count' => ['middle', 'tick', 2, 1, 3, 0, 2, 0.3],
        'must' => ['middle', 'fist', 2, 1, 6, 0, 0, 0.0], 'think' => ['middle', 'temple', 1, 1, 3, 0, 6, 0.6],
        'hear' => ['low', 'ear', 1, 1, 0, 6, 7, 0.6], 'see' => ['eyes', 'point', 1, 1, 0, 6, 0, 0.6],
        'perhaps' => ['low', 'shrug', 1, 2, 0, 4, 8, 0.8], 'please' => ['in', 'plead', 2, 2, 4, 0, 4, 0.8],
        'time' => ['middle', 'watch', 2, 1, 7, 0, 0, 0.4], 'again' => ['in', 'aside', 3, 1, 3, 0, 3, 0.2],
        'give' => ['low', 'offer', 1, 2, 5, 0, 0, 0.3], 'before' => ['middle', 'over', 1, 1, -3, 8, 0, 0.2],
        'love' => ['low', 'chest', 1, 2, 3, 0, 5, 0.5], 'question' => ['low', 'shrug', 1, 2, -4, 0, 5, 1.0],
    ];

    private const WORDS = [
        'you' => 'you your yours yourself', 'me' => 'i me my mine myself', 'we' => 'we us our ours together everybody everyone all both',
        'there' => 'there that those yonder over across',
        'here' => 'here now this these today', 'up' => 'up high above sky rise raise',
        'down' => 'down low below under sink slow slowly calm quiet quietly',
        'big' => 'big great huge large whole every everything wide much many sea',
        'small' => 'small little tiny bit just only few', 'no' => 'no not never none nothing nobody cannot',
        'yes' => 'yes sure certainly right exactly indeed true', 'stop' => 'stop wait hold enough halt hush',
        'away' => 'away go gone leave off out lost', 'come' => 'come back bring follow join',
        'count' => 'one two three first second third once twice', 'must' => 'must will promise swear strong need work',
        'think' => 'think thought know knew remember mind believe forget', 'hear' => 'hear heard listen say said told tell bell',
        'see' => 'see saw look watch find found', 'perhaps' => 'perhaps maybe possibly might guess somehow',
        'please' => 'please beg sorry help', 'time' => 'time clock hour minute late early soon half',
        'again' => 'again always round turn turns over-and-over', 'give' => 'give gave take took have hand key',
        'before' => 'before yesterday past ago behind used', 'love' => 'love dear heart hope thank thanks friend',
        'question' => 'what why who how where when which',
    ];

    /** Seconds between two strokes at least. */
    private const APART = 0.75;

    /** @var array<string, string>|null */
    private static ?array $senses = null;

    /** The sense of a word; "beat" for one that means nothing to the hands. */
    public static function sense(string $word): string
    {
        if (self::$senses === null) {
            self::$senses = [];
            foreach (self::WORDS as $sense => $words) {
                foreach (explode(' ', $words) as $w) {
                    self::$senses[$w] = $sense;
                }
            }
        }
        $bare = strtolower(rtrim(trim($word, " \t\n.,;:!?\"'()*-"), "'"));
        $stem = explode("'", $bare)[0];

        return self::$senses[$bare] ?? self::$senses[$stem] ?? self::$senses[rtrim($stem, 's')] ?? 'beat';
    }

    /**
     * When each word is spoken: evenly by syllables, with a breath at commas and a longer one at stops.
     *
     * @return list<Spoken>
     */
    public static function spoken(string $line, float $seconds): array
    {
        $words = preg_split('/\s+/', trim($line), -1, PREG_SPLIT_NO_EMPTY);
        $at = 0.0;
        $out = [];
        foreach ($words === false ? [] : $words as $w) {
            $bare = trim($w, " .,;:!?\"'()*-");
            if ($bare === '') {
                continue;
            }
            $marked = str_contains($w, '*');
            $length = max(1, preg_match_all('/[aeiouyáéíóúäöü]+/iu', preg_replace('/(?<=[^aeiouy])e$/i', '', $bare) ?? $bare))
                + ($marked ? 0.4 : 0.0);
            $out[] = ['at' => $at, 'until' => $at + $length, 'word' => $bare, 'marked' => $marked];
            $at += $length + match (true) {
                preg_match('/[.!?]["\'*)]*$/', $w) === 1 => 2.2, preg_match('/[,;:]["\'*)]*$/', $w) === 1 => 1.1, default => 0.0,
            };
        }
        $total = max(1e-6, $out === [] ? 1.0 : $out[count($out) - 1]['until']);
        $k = max(0.5, $seconds - 0.95) / $total;

        return array_map(static fn (array $s): array => ['at' => 0.35 + $s['at'] * $k, 'until' => 0.35 + $s['until'] * $k] + $s, $out);
    }

    /**
     * Strokes of both arms and what the head does with them.
     *
     * @return array{list<Stroke>, list<Stroke>, list<array{t: float, side: float, sense: string}>}
     */
    public static function of(string $line, float $seconds, float $energy, int $seed): array
    {
        $left = $right = $beats = [];
        $spoken = self::spoken($line, $seconds);
        $marked = array_filter($spoken, static fn (array $s): bool => $s['marked']) !== [];
        $last = -1.0;
        foreach ($spoken as $i => $s) {
            $sense = self::sense($s['word']);
            if (! $s['marked'] && ($marked || $sense === 'beat') && ! ($marked && $sense !== 'beat' && $s['at'] - $last > 1.6)) {
                continue;
            }
            // A mark is more than a sense: what comes before it within reach gives way.
            if ($s['at'] - $last < self::APART) {
                continue;
            }
            foreach (array_slice($spoken, $i + 1) as $next) {
                if ($next['marked'] && ! $s['marked'] && $next['at'] - $s['at'] < self::APART) {
                    continue 2;
                }
            }
            $last = $s['at'];
            [$from, $to, $times, $hands] = self::SENSES[$sense];
            // The stroke lands with the stressed beginning of the word.
            $length = 0.17 + 0.08 * Noise::hash($i, $seed + 4);
            $stroke = [
                't' => max(0.3, $s['at'] + 0.06 - $length), 'from' => $from, 'to' => $to, 'times' => $times,
                'hold' => 0.18 + 0.3 * Noise::hash($i, $seed + 3), 'seconds' => $length, 'size' => ($s['marked'] ? 1.08 : 0.92) * $energy,
            ];
            $onLeft = Noise::hash($i, $seed + 2) < 0.4;
            if ($hands === 2 || $onLeft) {
                $left[] = $stroke;
            }
            if ($hands === 2 || ! $onLeft) {
                $right[] = ['t' => $stroke['t'] + ($hands === 2 ? 0.04 : 0.0)] + $stroke;
            }
            $beats[] = ['t' => $stroke['t'], 'side' => $hands === 2 ? 0.0 : ($onLeft ? 1.0 : -1.0), 'sense' => $sense];
        }

        return [$left, $right, $beats];
    }
}
