<?php

declare(strict_types=1);

namespace CrispReel\Core\Speech;

/**
 * A page of dialogue as people write it: a name, a colon, what is said; what stands without a name goes on with the line before.
 * A word in brackets behind the name says how it is said, if it is one of those that are known.
 */
final class Page
{
    /** How lines are said, by the words that people write for it. */
    private const MANNERS = [
        'calm' => 'calm', 'calmly' => 'calm', 'eager' => 'eager', 'eagerly' => 'eager', 'excited' => 'eager', 'angry' => 'angry',
        'angrily' => 'angry', 'sad' => 'sad', 'sadly' => 'sad', 'whispers' => 'whispered', 'whispering' => 'whispered',
        'whispered' => 'whispered', 'softly' => 'whispered', 'calls' => 'called', 'calling' => 'called', 'shouts' => 'called',
        'shouting' => 'called', 'called' => 'called', 'tired' => 'tired', 'tiredly' => 'tired',
    ];

    /** @return list<array{name: string, text: string, delivery: string}> */
    public static function lines(string $page): array
    {
        $out = [];
        $open = null;
        $rows = preg_split('/\R/u', $page);
        foreach ($rows === false ? [] : $rows as $row) {
            $row = trim($row);
            if (preg_match('/^([\p{L}\p{N}][\p{L}\p{N} .\'’-]{0,39}?)\s*(?:\(([^)]*)\))?\s*[:：]\s*(.*)$/u', $row, $m) === 1) {
                $out[] = $open;
                $open = ['name' => trim($m[1]), 'text' => $m[3], 'delivery' => self::MANNERS[mb_strtolower(trim($m[2]))] ?? ''];
            } elseif ($row !== '' && $open !== null) {
                $open['text'] = trim("{$open['text']} {$row}");
            }
        }
        $out[] = $open;

        return array_values(array_filter($out, static fn (?array $l): bool => $l !== null && Script::heard($l['text']) !== ''));
    }
}
