<?php

declare(strict_types=1);

namespace CrispReel\Core\Library;

/** Words as people use them: what a word may be a form of, and other words for the same thing. */
final class Words
{
    /** Words that people use for the same thing. */
    private const SAME = [
        ['sofa', 'couch', 'settee'], ['lantern', 'lamp', 'light'], ['boat', 'ship', 'ferry', 'vessel'],
        ['cart', 'barrow', 'wagon', 'trolley'], ['bike', 'bicycle', 'cycle'],
        ['walk', 'stroll', 'go', 'march'], ['run', 'jog', 'sprint', 'dash', 'hurry', 'flee', 'chase'],
        ['talk', 'speak', 'say', 'chat', 'tell', 'explain'], ['sad', 'unhappy', 'gloomy', 'cry', 'weep', 'mourn'],
        ['happy', 'glad', 'joy', 'cheer', 'merry', 'celebrate'], ['angry', 'furious', 'cross', 'rage', 'mad'],
        ['tired', 'weary', 'sleepy', 'exhausted'], ['afraid', 'scared', 'fear', 'frightened', 'nervous'],
        ['idle', 'stand', 'wait', 'rest'], ['sit', 'seat', 'seated'], ['give', 'hand', 'offer', 'pass'],
        ['take', 'receive', 'get', 'accept'], ['wave', 'greet', 'hello', 'goodbye', 'farewell'],
        ['throw', 'toss', 'hurl', 'fling'], ['catch', 'grab', 'seize'], ['push', 'shove'], ['pull', 'drag', 'tug', 'haul'],
        ['fall', 'trip', 'stumble', 'tumble'], ['jump', 'leap', 'hop'], ['look', 'watch', 'see', 'gaze'],
        [
            'person', 'people', 'man', 'woman', 'human', 'figure', 'character', 'performer', 'passenger', 'traveller', 'stranger',
            'neighbour',
        ],
        ['child', 'kid', 'boy', 'girl'], ['old', 'elderly', 'aged', 'senior'], ['bell', 'chime'], ['key', 'latchkey'],
        ['house', 'hut', 'cabin', 'shed', 'building'], ['tree', 'wood', 'forest'], ['shop', 'store'], ['street', 'road', 'lane'],
        ['chair', 'stool', 'bench'], ['table', 'desk'], ['bag', 'satchel', 'suitcase', 'case', 'luggage'],
        ['cloak', 'cape', 'coat'], ['skirt', 'dress'], ['climb', 'ladder', 'ascend'], ['think', 'ponder', 'wonder', 'consider'],
        ['sneak', 'creep', 'tiptoe'], ['proud', 'confident', 'bold'], ['cold', 'shiver', 'freeze'],
        ['argue', 'quarrel', 'fight', 'dispute'], ['hug', 'embrace', 'cuddle'], ['dance', 'swing', 'waltz'],
        ['laugh', 'giggle', 'chuckle'], ['kneel', 'crouch', 'squat'], ['lie', 'sleep'], ['write', 'note'], ['read', 'book'],
        ['drink', 'sip', 'cup'], ['sweep', 'broom', 'clean'], ['knock', 'door'], ['whisper', 'secret'], ['shout', 'call', 'yell'],
        ['pier', 'jetty', 'quay', 'dock', 'harbour'], ['sea', 'water', 'ocean', 'shore'],
        ['gull', 'gulls', 'seagull', 'bird', 'birds'], ['steps', 'footsteps', 'footstep', 'feet'], ['applause', 'clapping', 'clap'],
        ['crowd', 'audience', 'people'], ['horn', 'foghorn', 'hooter'], ['engine', 'motor'], ['splash', 'plunge'], ['storm', 'weather'],
        ['box', 'crate', 'chest'], ['background', 'ambience', 'atmosphere'],
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

    /** @return list<string> in lower case, without what stands between them */
    public static function in(string $text): array
    {
        return array_values(array_filter(
            preg_split('/[^\p{L}\p{N}]+/u', mb_strtolower($text)) ?: [],
            static fn (string $w): bool => $w !== '',
        ));
    }

    /**
     * A word and what it may be an ending of: stones, stone; running, run; carried, carry.
     *
     * @return list<string>
     */
    public function forms(string $word): array
    {
        if (isset($this->forms[$word])) {
            return $this->forms[$word];
        }
        $out = [$word];
        foreach (['ies' => ['y'], 'ied' => ['y'], 'ing' => ['', 'e'], 'ed' => ['', 'e'], 'es' => [''], 's' => ['']] as $end => $instead) {
            $base = substr($word, 0, -strlen($end));
            if (strlen($base.$instead[0]) < 3 || ! str_ends_with($word, $end)) {
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

    /** Whether two words are forms of one. */
    public function alike(string $a, string $b): bool
    {
        if ($a === $b) {
            return true;
        }
        // Forms begin as their word does.
        if ($a === '' || $b === '' || $a[0] !== $b[0]) {
            return false;
        }
        foreach ($this->forms($b) as $form) {
            if (in_array($form, $this->forms($a), true)) {
                return true;
            }
        }

        return false;
    }

    /** @return list<string> other words for the same */
    public function othersFor(string $word): array
    {
        $out = [];
        foreach ($this->forms($word) as $form) {
            array_push($out, ...($this->same[$form] ?? []));
        }

        return array_values(array_unique($out));
    }
}
