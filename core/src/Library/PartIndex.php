<?php

declare(strict_types=1);

namespace CrispReel\Core\Library;

/**
 * The parts of a kit, looked up by the forms of their words.
 *
 * @phpstan-type Part array{id: int, kind: string, name: string, tags: list<string>, facts: array<array-key, mixed>}
 * @phpstan-type Known array{id: int, kind: string, name: string, tags: list<string>, facts: array<array-key, mixed>, head: list<string>, own: list<string>}
 */
final class PartIndex
{
    private const KINDS = ['performer', 'set', 'prop', 'motion', 'sound'];

    private readonly Words $words;

    /** @var array<string, list<Known>> */
    private array $parts;

    /** @var array<string, array<string, array<int, float>>> kind to form of a word to parts and what it is worth to them */
    private array $index = [];

    /** @var array<string, array<string, array<int, float>>> the same of what only means a part */
    private array $loose = [];

    /** @var array<string, list<list<string>>> names of motions of several words, by the first */
    private array $begins = [];

    /** @param  list<Part>  $parts  in the order in which equals are to be offered; other kinds are passed over */
    public function __construct(array $parts)
    {
        $this->words = new Words;
        $this->parts = $this->index = $this->loose = array_fill_keys(self::KINDS, []);
        foreach ($parts as $p) {
            if (isset($this->parts[$p['kind']])) {
                $known = $p + ['head' => self::head($p), 'own' => Words::in($p['name'])];
                $this->enter($known, count($this->parts[$p['kind']]));
                $this->parts[$p['kind']][] = $known;
            }
        }
    }

    /** @return list<Known> all of a kind */
    public function of(string $kind): array
    {
        return $this->parts[$kind] ?? [];
    }

    /**
     * The words by which a part is first called.
     *
     * @param  Part  $p
     * @return list<string>
     */
    private static function head(array $p): array
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

    /**
     * What a word is worth to the parts of a kind: 3 by their head, 2 by their name, 1 by another word of a motion or a
     * sound; less by what only means the same.
     *
     * @return array<int, float> by part
     */
    public function scores(string $kind, string $word, bool $loosely): array
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

    /**
     * Words of a line that make the name of a motion, small ones too: gets up.
     *
     * @param  list<string>  $text  all words of the line
     * @return list<string>
     */
    public function phrases(array $text): array
    {
        $out = [];
        foreach (array_unique($text) as $w) {
            foreach ($this->words->forms($w) as $form) {
                foreach ($this->begins[$form] ?? [] as $name) {
                    array_push($out, ...$this->spoken($name, $text));
                }
            }
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
    public function spoken(array $name, array $text): array
    {
        for ($i = 0, $n = count($name) > 1 ? count($text) - 1 : 0; $i < $n; $i++) {
            if ($this->words->alike($text[$i], $name[0]) && $this->words->alike($text[$i + 1], $name[1])) {
                return [$text[$i], $text[$i + 1]];
            }
        }

        return [];
    }

    /**
     * By itself or by another word for the same.
     *
     * @param  list<string>  $among
     */
    public function meets(string $word, array $among): bool
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
}
