<?php

declare(strict_types=1);

namespace CrispReel\Core\Library;

/**
 * Finds kit assets by words: in the name, in tags, or by a word that means the same. Every word must be met; what is met in
 * the name stands before what is met in a tag, and that before what only means the same.
 *
 * @phpstan-type Entry array{id: int, name: string, tags: list<string>}
 */
final class KitSearch
{
    /** Words that say nothing by themselves. */
    private const SMALL = [
        'a', 'an', 'the', 'on', 'in', 'at', 'by', 'of', 'to', 'from', 'for', 'with', 'and', 'somebody', 'someone', 'his', 'her', 'their',
        'my', 'each', 'other',
    ];

    /** A step of fit outweighs so many tags. */
    private const RANK = 12;

    private readonly Words $words;

    public function __construct()
    {
        $this->words = new Words;
    }

    /**
     * Ids in the order of how well they fit; entries of equal fit keep their order. Where nothing fits, a slip of the
     * finger is forgiven: one wrong letter, two in a long word.
     *
     * @param  list<Entry>  $entries
     * @return list<int>
     */
    public function find(string $query, array $entries): array
    {
        $words = Words::in($query);
        if ($words === []) {
            return array_column($entries, 'id');
        }
        $read = array_map(static fn (array $e): array => [Words::in($e['name']), Words::in(implode(' ', $e['tags']))], $entries);
        // Small words count where a name has them; else what is left says it.
        $bare = array_values(array_diff($words, self::SMALL));
        $found = $this->ranked($words, $read, false) ?: ($bare === [] ? [] : $this->ranked($bare, $read, false));
        $found = $found ?: $this->ranked($bare === [] ? $words : $bare, $read, true);

        return array_map(static fn (int $n): int => $entries[$n]['id'], $found);
    }

    /**
     * @param  list<string>  $words
     * @param  list<array{list<string>, list<string>}>  $read  words of name and tags of each entry
     * @return list<int> places in the list
     */
    private function ranked(array $words, array $read, bool $forgiving): array
    {
        $scores = [];
        foreach ($read as $n => [$name, $tags]) {
            $score = $this->score($words, $name, $tags, $forgiving);
            if ($score !== null) {
                $scores[$n] = $score;
            }
        }
        asort($scores);

        return array_keys($scores);
    }

    /**
     * The smaller, the better; null: a word is not met. Tags stand in the order of what matters most: between two that fit as well, the
     * earlier tag wins.
     *
     * @param  list<string>  $words
     * @param  list<string>  $name
     * @param  list<string>  $tags
     */
    private function score(array $words, array $name, array $tags, bool $forgiving): ?int
    {
        $sum = 0;
        foreach ($words as $w) {
            $best = null;
            foreach ([$name, $tags] as $k => $list) {
                $met = $this->met($w, $list);
                if ($met !== null && ($best === null || $met + 2 * $k < $best)) {
                    $best = $met + 2 * $k;
                }
            }
            $best ??= $this->meantBy($w, $name, $tags) ? 5 : null;
            $best ??= $forgiving && (self::slipped($w, $name) || self::slipped($w, $tags)) ? 6 : null;
            if ($best === null) {
                return null;
            }
            $sum += self::RANK * $best + ($best === 2 ? min(self::RANK - 1, $this->place($w, $tags)) : 0);
        }

        return $sum;
    }

    /** @param  list<string>  $tags */
    private function place(string $word, array $tags): int
    {
        foreach ($tags as $n => $in) {
            if ($this->words->alike($word, $in)) {
                return $n;
            }
        }

        return self::RANK;
    }

    /**
     * Whether another word for the same is in the name or the tags.
     *
     * @param  list<string>  $name
     * @param  list<string>  $tags
     */
    private function meantBy(string $word, array $name, array $tags): bool
    {
        foreach ($this->words->othersFor($word) as $other) {
            if ($this->met($other, $name) === 0 || $this->met($other, $tags) === 0) {
                return true;
            }
        }

        return false;
    }

    /**
     * 0: a whole word; 1: the beginning of one.
     *
     * @param  list<string>  $list
     */
    private function met(string $word, array $list): ?int
    {
        $begins = false;
        foreach ($list as $in) {
            if ($this->words->alike($word, $in)) {
                return 0;
            }
            $begins = $begins || str_starts_with($in, $word);
        }

        return $begins ? 1 : null;
    }

    /** @param  list<string>  $list */
    private static function slipped(string $word, array $list): bool
    {
        $most = strlen($word) > 7 ? 2 : 1;
        foreach (strlen($word) < 4 ? [] : $list as $in) {
            if (abs(strlen($in) - strlen($word)) > $most || $in[0] !== $word[0]) {
                continue;
            }
            $wrong = levenshtein($in, $word);
            // Two letters that have changed places count as one.
            if ($wrong <= $most || ($wrong === 2 && count_chars($in, 1) === count_chars($word, 1))) {
                return true;
            }
        }

        return false;
    }
}
