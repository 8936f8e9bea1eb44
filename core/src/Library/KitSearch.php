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
    /** Words that people use for the same thing. */
    private const SAME = [
        ['sofa', 'couch', 'settee'], ['lantern', 'lamp', 'light'], ['boat', 'ship', 'ferry', 'vessel'], ['cart', 'barrow', 'wagon', 'trolley'], ['bike', 'bicycle', 'cycle'],
        ['walk', 'stroll', 'go', 'march'], ['run', 'jog', 'sprint', 'dash', 'hurry', 'flee', 'chase'], ['talk', 'speak', 'say', 'chat', 'tell', 'explain'], ['sad', 'unhappy', 'gloomy', 'cry', 'weep', 'mourn'],
        ['happy', 'glad', 'joy', 'cheer', 'merry', 'celebrate'], ['angry', 'furious', 'cross', 'rage', 'mad'], ['tired', 'weary', 'sleepy', 'exhausted'], ['afraid', 'scared', 'fear', 'frightened', 'nervous'],
        ['idle', 'stand', 'wait', 'rest'], ['sit', 'seat', 'seated'], ['give', 'hand', 'offer', 'pass'], ['take', 'receive', 'get', 'accept'], ['wave', 'greet', 'hello', 'goodbye', 'farewell'],
        ['throw', 'toss', 'hurl', 'fling'], ['catch', 'grab', 'seize'], ['push', 'shove'], ['pull', 'drag', 'tug', 'haul'], ['fall', 'trip', 'stumble', 'tumble'], ['jump', 'leap', 'hop'], ['look', 'watch', 'see', 'gaze'],
        ['person', 'people', 'man', 'woman', 'human', 'figure', 'character', 'performer'], ['child', 'kid', 'boy', 'girl'], ['old', 'elderly', 'aged', 'senior'], ['bell', 'chime'], ['key', 'latchkey'],
        ['house', 'hut', 'cabin', 'shed', 'building'], ['tree', 'wood', 'forest'], ['shop', 'store'], ['street', 'road', 'lane'], ['chair', 'stool', 'bench'], ['table', 'desk'], ['bag', 'satchel', 'suitcase', 'case', 'luggage'],
        ['cloak', 'cape', 'coat'], ['skirt', 'dress'], ['climb', 'ladder', 'ascend'], ['think', 'ponder', 'wonder', 'consider'], ['sneak', 'creep', 'tiptoe'], ['proud', 'confident', 'bold'], ['cold', 'shiver', 'freeze'],
        ['argue', 'quarrel', 'fight', 'dispute'], ['hug', 'embrace', 'cuddle'], ['dance', 'swing', 'waltz'], ['laugh', 'giggle', 'chuckle'], ['kneel', 'crouch', 'squat'], ['lie', 'sleep'], ['write', 'note'], ['read', 'book'],
        ['drink', 'sip', 'cup'], ['sweep', 'broom', 'clean'], ['knock', 'door'], ['whisper', 'secret'], ['shout', 'call', 'yell'], ['pier', 'jetty', 'quay', 'dock', 'harbour'], ['sea', 'water', 'ocean', 'shore'],
        ['gull', 'gulls', 'seagull', 'bird', 'birds'], ['steps', 'footsteps', 'footstep', 'feet'], ['applause', 'clapping', 'clap'], ['crowd', 'audience', 'people'], ['horn', 'foghorn', 'hooter'], ['engine', 'motor'], ['splash', 'plunge'], ['storm', 'weather'], ['background', 'ambience', 'atmosphere'],
    ];

    /** @var array<string, list<string>> */
    private readonly array $same;

    /** @var array<string, list<string>> what was worked out of words before */
    private array $forms = [];

    public function __construct()
    {
        $map = [];
        foreach (self::SAME as $group) {
            foreach ($group as $word) {
                $map[$word] = [...($map[$word] ?? []), ...array_diff($group, [$word])];
            }
        }
        $this->same = $map;
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
        $words = self::words($query);
        $found = $this->ranked($words, $entries, false);

        return $found === [] && $words !== [] ? $this->ranked($words, $entries, true) : $found;
    }

    /**
     * @param  list<string>  $words
     * @param  list<Entry>  $entries
     * @return list<int>
     */
    private function ranked(array $words, array $entries, bool $forgiving): array
    {
        $ranked = [];
        foreach ($entries as $n => $e) {
            $score = $this->score($words, $e, $forgiving);
            if ($score !== null) {
                $ranked[] = [$score, $n, $e['id']];
            }
        }
        sort($ranked);

        return array_map(static fn (array $r): int => $r[2], $ranked);
    }

    /**
     * The smaller, the better; null: a word is not met.
     *
     * @param  list<string>  $words
     * @param  Entry  $e
     */
    private function score(array $words, array $e, bool $forgiving): ?int
    {
        if ($words === []) {
            return 0;
        }
        $name = self::words($e['name']);
        $tags = self::words(implode(' ', $e['tags']));
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
            $sum += $best;
        }

        return $sum;
    }

    /**
     * Whether another word for the same is in the name or the tags.
     *
     * @param  list<string>  $name
     * @param  list<string>  $tags
     */
    private function meantBy(string $word, array $name, array $tags): bool
    {
        foreach ($this->forms($word) as $form) {
            foreach ($this->same[$form] ?? [] as $other) {
                if ($this->met($other, $name) === 0 || $this->met($other, $tags) === 0) {
                    return true;
                }
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
        $forms = $this->forms($word);
        $begins = false;
        foreach ($list as $in) {
            if ($in === $word || array_intersect($forms, $this->forms($in)) !== []) {
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

    /**
     * A word and what it may be an ending of: stones, stone; running, run; carried, carry.
     *
     * @return list<string>
     */
    private function forms(string $word): array
    {
        if (isset($this->forms[$word])) {
            return $this->forms[$word];
        }
        $out = [$word];
        foreach (['ies' => ['y'], 'ied' => ['y'], 'ing' => ['', 'e'], 'ed' => ['', 'e'], 'es' => [''], 's' => ['']] as $end => $instead) {
            $base = substr($word, 0, -strlen($end));
            if (strlen($base) < 3 || ! str_ends_with($word, $end)) {
                continue;
            }
            foreach ($instead as $other) {
                $out[] = $base.$other;
            }
            if (strlen($base) > 3 && $base[-1] === $base[-2] && ! in_array($base[-1], ['l', 's'], true)) {
                $out[] = substr($base, 0, -1);
            }
        }

        return $this->forms[$word] = array_values(array_unique($out));
    }

    /** @return list<string> */
    private static function words(string $text): array
    {
        return array_values(array_filter(preg_split('/[^\p{L}\p{N}]+/u', mb_strtolower($text)) ?: [], static fn (string $w): bool => $w !== ''));
    }
}
