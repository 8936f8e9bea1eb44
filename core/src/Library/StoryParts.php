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
 * @phpstan-import-type Part from PartIndex
 * @phpstan-import-type Known from PartIndex
 *
 * @phpstan-type Cast array{name: string, id: int}
 * @phpstan-type Found array{kind: string, id: int, name: string, words: list<string>}
 * @phpstan-type Line array{text: string, found: list<Found>, missing: list<string>, cannot: list<string>}
 */
final class StoryParts
{
    private const MOST_LINES = 200;

    /** Parts of one kind in one line. */
    private const MOST = 4;

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

    /** @var array<string, true> */
    private readonly array $empty;

    public function __construct()
    {
        $this->empty = array_fill_keys(Words::in(self::EMPTY), true);
    }

    /**
     * @param  list<Part>  $parts  the kit, in the order in which equals are to be offered
     * @param  list<Cast>  $cast  performers of the scene: the name there and the part
     * @return list<Line>
     */
    public function of(string $story, array $parts, array $cast): array
    {
        $kit = new PartIndex($parts);
        $out = [];
        foreach (array_slice(self::lines($story), 0, self::MOST_LINES) as $text) {
            $out[] = $this->line($text, $kit, $cast);
        }

        return $out;
    }

    /** @return list<string> sentences, trimmed */
    private static function lines(string $story): array
    {
        return array_values(array_filter(
            array_map(trim(...), preg_split('/(?<=[.!?])\s+|\R+/u', $story) ?: []),
            static fn (string $s): bool => $s !== '',
        ));
    }

    /**
     * @param  list<Cast>  $cast
     * @return Line
     */
    private function line(string $text, PartIndex $kit, array $cast): array
    {
        $said = Words::in($text);
        $asked = array_values(array_filter(array_unique($said), fn (string $w): bool => ! isset($this->empty[$w]) && ! ctype_digit($w)));
        if (preg_match('/\bold (man|woman|person|people|lady|gentleman)\b/i', $text) === 1) {
            $asked[] = 'old';
        }
        // Small words count where they make the name of a motion: gets up.
        array_push($asked, ...$kit->phrases($said));
        $asked = array_values(array_unique($asked));
        [$found, $left] = $this->people($asked, $kit, $cast);
        $met = array_values(array_diff($asked, $left));
        $taken = $compound = [];
        // By their own words first; by other words for the same only what nothing has answered then.
        foreach ([false, true] as $loosely) {
            $open = $loosely ? array_values(array_diff($left, $met)) : $left;
            foreach (['set', 'prop', 'motion', 'sound'] as $kind) {
                foreach ($this->covering($kit, $kind, $open, $said, $compound, $loosely) as [$part, $words]) {
                    $taken[] = [$part, $words];
                    array_push($met, ...$words);
                    if ($kind === 'set' || $kind === 'prop') {
                        array_push($compound, ...$kit->spoken($part['own'], $said));
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

        return [
            'text' => $text, 'found' => $found, 'missing' => $missing,
            'cannot' => CastLimits::of($found, $kit->of('performer'), $motions),
        ];
    }

    /**
     * Who is named: first in the scene, then on the shelf.
     *
     * @param  list<string>  $asked
     * @param  list<Cast>  $cast
     * @return array{list<Found>, list<string>} who was found, and the words that are left
     */
    private function people(array $asked, PartIndex $kit, array $cast): array
    {
        $shelf = $kit->of('performer');
        $found = $used = [];
        $known = [...$cast, ...array_map(static fn (array $p): array => ['name' => $p['name'], 'id' => $p['id']], $shelf)];
        foreach ($known as $one) {
            // "Oda Ferrant in violet" is called by her names alone.
            $names = array_filter(
                Words::in(explode(' in ', $one['name'])[0]),
                fn (string $w): bool => ! isset($this->empty[$w]) && mb_strlen($w) > 1,
            );
            $called = array_values(array_filter(
                $asked,
                fn (string $w): bool => ! in_array($w, $used, true)
                    && (in_array($w, $names, true) || (str_ends_with($w, 's') && in_array(substr($w, 0, -1), $names, true))),
            ));
            if ($called !== []) {
                $found[] = ['kind' => 'performer', 'id' => $one['id'], 'name' => $one['name'], 'words' => $called];
                array_push($used, ...$called);
            }
        }
        $left = array_values(array_diff($asked, $used));
        foreach ($left as $w) {
            foreach ($shelf as $p) {
                if ($kit->meets($w, $p['tags'])) {
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
     * @param  list<string>  $text  all words of the line, in their order
     * @param  list<string>  $compound  words that are parts of other names: a hand cart calls for no motion of the hands
     * @param  bool  $loosely  also by other words for the same
     * @return list<array{Known, list<string>}> parts and the words that each answers
     */
    private function covering(PartIndex $kit, string $kind, array $asked, array $text, array $compound, bool $loosely): array
    {
        $out = [];
        $scores = $words = [];
        $parts = $kit->of($kind);
        foreach ($asked as $w) {
            foreach ($kit->scores($kind, $w, $loosely) as $k => $score) {
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
            if (array_filter(
                array_keys($scores[$k]),
                fn (string|int $w): bool => in_array((string) $w, $heads, true) && $kit->meets((string) $w, $p['head']),
            ) === []) {
                unset($scores[$k]);
            }
        }
        while (count($out) < self::MOST && $scores !== []) {
            $best = null;
            foreach ($scores as $k => $of) {
                $sum = array_sum(array_diff_key($of, $words)) + ($kit->spoken($parts[$k]['own'], $text) === [] ? 0.0 : 1.0) - 0.01
                    * count($parts[$k]['own']);
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
            $scores = array_filter(
                $scores,
                fn (array $o): bool => array_filter(
                    array_keys(array_diff_key($o, $words)),
                    static fn (string|int $w): bool => $o[$w] >= 0.5,
                ) !== [],
            );
        }

        return $out;
    }
}
