<?php

declare(strict_types=1);

namespace CrispReel\Core\Library;

/**
 * What a story needs, line by line: who, where, which things, motions and sounds of the kit its words call for; which words
 * nothing answers; and what the cast cannot do.
 *
 * Each kind is covered greedily: the part that meets most of a line's words is taken, then the one that meets most of the
 * rest. A motion or a sound must meet a word by its head (what it is first called), else every table would bring the motion
 * of picking up from one.
 *
 * @phpstan-type Part array{id: int, kind: string, name: string, tags: list<string>, facts: array<array-key, mixed>}
 * @phpstan-type Known array{id: int, kind: string, name: string, tags: list<string>, facts: array<array-key, mixed>, head: list<string>, own: list<string>}
 * @phpstan-type Cast array{name: string, id: int}
 * @phpstan-type Found array{kind: string, id: int, name: string, words: list<string>}
 * @phpstan-type Line array{text: string, found: list<Found>, missing: list<string>, cannot: list<string>}
 */
final class StoryParts
{
    private const MOST_LINES = 200;

    /** Parts of one kind in one line. */
    private const MOST = 4;

    private const KINDS = ['performer', 'set', 'prop', 'motion', 'sound'];

    /** Words that call for nothing. */
    private const EMPTY = <<<'TEXT'
        a an the this that these those some any each every no none all both half one two three four five six seven eight nine ten first second third last other another same
        i you he she it we they me him her us them my your his its our their mine yours hers ours theirs who whom whose which what where when why how himself herself itself themselves
        and or but nor so yet if then than as because while until till since though although after before during once
        of to in on at by for from with without into onto over under above below between behind beside near off out up down through across along around against towards toward inside outside upon about away back again
        is are was were be been being am has have had having do does did done can could will would shall should may might must let lets
        not yes also too very much more most less least just only still even ever never always often already now here there soon later today tomorrow yesterday
        s t re ve ll d m oh ah well okay
        begin begins start starts try tries come comes came seem seems become becomes want wants make makes get gets got keep keeps know knows mean means need needs
        slow quick fast big small little large long short high low old new young good bad great own dark bright light empty full
        man men someone somebody everyone everybody anyone nobody thing things something nothing everything place time way side end scene shot
        dawn morning noon afternoon evening dusk night midnight day fog past
        woman women gentleman lady suddenly slowly finally
        TEXT;

    /** Tags of motions that ask something of a body, and what is lacking without it. */
    private const ASKS = [
        'mouths' => [['talk', 'speak', 'call', 'shout', 'whisper', 'argue', 'quarrel'], 'has no shapes of the mouth: "%s" will be mute'],
        'shapes' => [['cry', 'laugh', 'weep'], 'has no face that moves: "%s" will show in the body alone'],
        'fingers' => [['point', 'write', 'drink', 'take', 'throw', 'catch', 'carry', 'pull', 'row', 'give', 'hand', 'read', 'wave', 'clap'], 'has no fingers: the hands stay as they are in "%s"'],
    ];

    private readonly Words $words;

    /** @var array<string, true> */
    private readonly array $empty;

    /** @var array<string, array<string, array<int, float>>> kind to form of a word to parts and what it is worth to them */
    private array $index = [];

    /** @var array<string, array<string, array<int, float>>> the same of what only means a part */
    private array $loose = [];

    /** @var array<string, list<list<string>>> names of motions of several words, by the first */
    private array $begins = [];

    public function __construct()
    {
        $this->words = new Words;
        $this->empty = array_fill_keys(Words::in(self::EMPTY), true);
    }

    /**
     * @param  list<Part>  $parts  the kit, in the order in which equals are to be offered
     * @param  list<Cast>  $cast  performers of the scene: the name there and the part
     * @return list<Line>
     */
    public function of(string $story, array $parts, array $cast): array
    {
        $byKind = array_fill_keys(self::KINDS, []);
        $this->index = $this->loose = array_fill_keys(self::KINDS, []);
        $this->begins = [];
        foreach ($parts as $p) {
            if (isset($byKind[$p['kind']])) {
                $known = $p + ['head' => $this->head($p), 'own' => Words::in($p['name'])];
                $this->enter($known, count($byKind[$p['kind']]));
                $byKind[$p['kind']][] = $known;
            }
        }
        $out = [];
        foreach (array_slice(self::lines($story), 0, self::MOST_LINES) as $text) {
            $out[] = $this->line($text, $byKind, $cast);
        }

        return $out;
    }

    /**
     * Puts a part where its words are looked up.
     *
     * @param  Known  $p
     */
    private function enter(array $p, int $k): void
    {
        $acts = $p['kind'] === 'motion' || $p['kind'] === 'sound';
        $tags = array_map(mb_strtolower(...), $p['tags']);
        foreach ([[$acts ? $tags : [], 1.0], [$p['own'], 2.0], [$p['head'], 3.0]] as [$words, $score]) {
            foreach ($words as $w) {
                foreach ($this->words->forms($w) as $form) {
                    $this->index[$p['kind']][$form][$k] = max($score, $this->index[$p['kind']][$form][$k] ?? 0.0);
                }
            }
        }
        foreach ([[$acts ? [] : $tags, 0.7], [$p['head'], 0.8]] as [$words, $score]) {
            foreach ($words as $w) {
                foreach ($this->words->forms($w) as $form) {
                    $this->loose[$p['kind']][$form][$k] = $score;
                }
            }
        }
        if ($p['kind'] === 'motion' && count($p['own']) > 1) {
            foreach ($this->words->forms($p['own'][0]) as $form) {
                $this->begins[$form][] = $p['own'];
            }
        }
    }

    /** @return list<string> sentences, trimmed */
    private static function lines(string $story): array
    {
        return array_values(array_filter(array_map(trim(...), preg_split('/(?<=[.!?])\s+|\R+/u', $story) ?: []), static fn (string $s): bool => $s !== ''));
    }

    /**
     * The words by which a part is first called.
     *
     * @param  Part  $p
     * @return list<string>
     */
    private function head(array $p): array
    {
        $name = Words::in($p['name']);
        $tags = array_values(array_filter($p['tags'], static fn (string $t): bool => $t !== $p['kind']));
        $first = Words::in($tags[0] ?? '');

        return array_values(array_unique(match ($p['kind']) {
            'motion', 'sound' => [...array_slice($name, 0, 1), ...array_slice($first, 0, 1)],
            // A brass key is a key, a cart with a clock a cart.
            default => [...array_slice(Words::in(preg_split('/,| with | of | in /i', $p['name'])[0] ?? ''), -1), ...$first],
        }));
    }

    /**
     * @param  array<string, list<Known>>  $byKind
     * @param  list<Cast>  $cast
     * @return Line
     */
    private function line(string $text, array $byKind, array $cast): array
    {
        $said = Words::in($text);
        $asked = array_values(array_filter(array_unique($said), fn (string $w): bool => ! isset($this->empty[$w]) && ! ctype_digit($w)));
        if (preg_match('/\bold (man|woman|person|people|lady|gentleman)\b/i', $text) === 1) {
            $asked[] = 'old';
        }
        // Small words count where they make the name of a motion: gets up.
        foreach (array_unique($said) as $w) {
            foreach ($this->words->forms($w) as $form) {
                foreach ($this->begins[$form] ?? [] as $name) {
                    array_push($asked, ...$this->spoken($name, $said));
                }
            }
        }
        $asked = array_values(array_unique($asked));
        [$found, $left] = $this->people($asked, $byKind['performer'], $cast);
        $met = array_values(array_diff($asked, $left));
        $taken = $compound = [];
        // By their own words first; by other words for the same only what nothing has answered then.
        foreach ([false, true] as $loosely) {
            $open = $loosely ? array_values(array_diff($left, $met)) : $left;
            foreach (['set', 'prop', 'motion', 'sound'] as $kind) {
                foreach ($this->covering($kind, $open, $byKind[$kind], $said, $compound, $loosely) as [$part, $words]) {
                    $taken[] = [$part, $words];
                    array_push($met, ...$words);
                    if ($kind === 'set' || $kind === 'prop') {
                        array_push($compound, ...$this->spoken($part['own'], $said));
                    }
                }
            }
        }
        $motions = [];
        foreach ($taken as [$part, $words]) {
            $found[] = ['kind' => $part['kind'], 'id' => $part['id'], 'name' => $part['name'], 'words' => $words];
            if ($part['kind'] === 'motion') {
                $motions[] = $part;
            }
        }
        // How something is done calls for no part of its own.
        $missing = array_values(array_filter(array_diff($asked, $met), static fn (string $w): bool => ! str_ends_with($w, 'ly')));

        return ['text' => $text, 'found' => $found, 'missing' => $missing, 'cannot' => $this->cannot($found, $byKind['performer'], $motions)];
    }

    /**
     * Who is named: first in the scene, then on the shelf.
     *
     * @param  list<string>  $asked
     * @param  list<Known>  $shelf
     * @param  list<Cast>  $cast
     * @return array{list<Found>, list<string>} who was found, and the words that are left
     */
    private function people(array $asked, array $shelf, array $cast): array
    {
        $found = $used = [];
        $known = [...$cast, ...array_map(static fn (array $p): array => ['name' => $p['name'], 'id' => $p['id']], $shelf)];
        foreach ($known as $one) {
            // "Oda Ferrant in violet" is called by her names alone.
            $names = array_filter(Words::in(explode(' in ', $one['name'])[0]), fn (string $w): bool => ! isset($this->empty[$w]) && mb_strlen($w) > 1);
            $called = array_values(array_filter($asked, fn (string $w): bool => ! in_array($w, $used, true) && (in_array($w, $names, true) || (str_ends_with($w, 's') && in_array(substr($w, 0, -1), $names, true)))));
            if ($called !== []) {
                $found[] = ['kind' => 'performer', 'id' => $one['id'], 'name' => $one['name'], 'words' => $called];
                array_push($used, ...$called);
            }
        }
        $left = array_values(array_diff($asked, $used));
        foreach ($left as $w) {
            foreach ($shelf as $p) {
                if ($this->meets($w, $p['tags'])) {
                    $found[] = ['kind' => 'performer', 'id' => $p['id'], 'name' => $p['name'], 'words' => [$w]];
                    $used[] = $w;
                    break;
                }
            }
        }

        return [$found, array_values(array_diff($asked, $used))];
    }

    /**
     * @param  list<string>  $asked
     * @param  list<Known>  $parts  all of the kind
     * @param  list<string>  $text  all words of the line, in their order
     * @param  list<string>  $compound  words that are parts of other names: a hand cart calls for no motion of the hands
     * @param  bool  $loosely  also by other words for the same
     * @return list<array{Known, list<string>}> parts and the words that each answers
     */
    private function covering(string $kind, array $asked, array $parts, array $text, array $compound, bool $loosely): array
    {
        $out = [];
        $scores = $words = [];
        foreach ($asked as $w) {
            foreach ($this->scores($kind, $w, $loosely) as $k => $score) {
                $scores[$k][$w] = $score;
            }
        }
        ksort($scores);
        foreach ($scores as $k => $_) {
            $p = $parts[$k];
            // By its head, or not at all; what nothing has answered may be met by a thing's other words.
            if ($loosely && ($p['kind'] === 'set' || $p['kind'] === 'prop')) {
                continue;
            }
            $heads = $p['kind'] === 'motion' || $p['kind'] === 'sound' ? array_diff($asked, $compound) : $asked;
            if (array_filter(array_keys($scores[$k]), fn (string|int $w): bool => in_array((string) $w, $heads, true) && $this->meets((string) $w, $p['head'])) === []) {
                unset($scores[$k]);
            }
        }
        while (count($out) < self::MOST && $scores !== []) {
            $best = null;
            foreach ($scores as $k => $of) {
                $sum = array_sum(array_diff_key($of, $words)) + ($this->spoken($parts[$k]['own'], $text) === [] ? 0.0 : 1.0) - 0.01 * count($parts[$k]['own']);
                if (array_diff_key($of, $words) !== [] && ($best === null || $sum > $best[1])) {
                    $best = [$k, $sum];
                }
            }
            if ($best === null || $best[1] < 0.4) {
                break;
            }
            $of = $scores[$best[0]];
            $out[] = [$parts[$best[0]], array_map(strval(...), array_keys(array_diff_key($of, $words)))];
            $words += $of;
            unset($scores[$best[0]]);
            // A head that has been answered calls for no second part.
            $scores = array_filter($scores, fn (array $o): bool => array_filter(array_keys(array_diff_key($o, $words)), static fn (string|int $w): bool => $o[$w] >= 0.5) !== []);
        }

        return $out;
    }

    /**
     * The first two words of a name where they are said one after the other: sits down, hand cart.
     *
     * @param  list<string>  $name
     * @param  list<string>  $text
     * @return list<string> as they are said; empty where they are not
     */
    private function spoken(array $name, array $text): array
    {
        for ($i = 0, $n = count($name) > 1 ? count($text) - 1 : 0; $i < $n; $i++) {
            if ($this->words->alike($text[$i], $name[0]) && $this->words->alike($text[$i + 1], $name[1])) {
                return [$text[$i], $text[$i + 1]];
            }
        }

        return [];
    }

    /**
     * What a word is worth to the parts of a kind: 3 by their head, 2 by their name, 1 by another word of a motion or a
     * sound; less by what only means the same.
     *
     * @return array<int, float> by part
     */
    private function scores(string $kind, string $word, bool $loosely): array
    {
        $out = [];
        foreach ($loosely ? [$word, ...$this->words->othersFor($word)] : [] as $other) {
            foreach ($this->words->forms($other) as $form) {
                foreach ($this->loose[$kind][$form] ?? [] as $k => $score) {
                    $out[$k] = max($score, $out[$k] ?? 0.0);
                }
            }
        }
        foreach ($this->words->forms($word) as $form) {
            foreach ($this->index[$kind][$form] ?? [] as $k => $score) {
                $out[$k] = max($score, $out[$k] ?? 0.0);
            }
        }

        return $out;
    }

    /** @param  list<string>  $among */
    private function alikeAny(string $word, array $among): bool
    {
        foreach ($among as $other) {
            if ($this->words->alike($word, mb_strtolower($other))) {
                return true;
            }
        }

        return false;
    }

    /**
     * By itself or by another word for the same.
     *
     * @param  list<string>  $among
     */
    private function meets(string $word, array $among): bool
    {
        if ($this->alikeAny($word, $among)) {
            return true;
        }
        foreach ($this->words->othersFor($word) as $other) {
            if ($this->alikeAny($other, $among)) {
                return true;
            }
        }

        return false;
    }

    /**
     * @param  list<Found>  $found
     * @param  list<Known>  $performers
     * @param  list<Known>  $motions
     * @return list<string>
     */
    private function cannot(array $found, array $performers, array $motions): array
    {
        $bodies = array_column($performers, 'facts', 'id');
        $out = [];
        foreach ($found as $who) {
            if ($who['kind'] !== 'performer' || ! isset($bodies[$who['id']])) {
                continue;
            }
            $has = static function (string $fact) use ($bodies, $who): bool {
                $v = $bodies[$who['id']][$fact] ?? 0;

                return $v === true || (is_numeric($v) && $v > 0);
            };
            foreach ($motions as $m) {
                if (! $has('roles')) {
                    $out[] = sprintf('%s has not the joints of a person: "%s" cannot be played.', $who['name'], $m['name']);

                    continue;
                }
                foreach (self::ASKS as $fact => [$tags, $lacks]) {
                    if (! $has($fact) && array_intersect($tags, array_map(mb_strtolower(...), $m['tags'])) !== []) {
                        $out[] = $who['name'].' '.sprintf($lacks, $m['name']).'.';
                    }
                }
            }
        }

        return array_values(array_unique($out));
    }
}
