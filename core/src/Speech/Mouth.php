<?php

declare(strict_types=1);

namespace CrispReel\Core\Speech;

use CrispReel\Core\Math\Ease;

/**
 * The mouth of a reading at any moment: every sound asks for its targets with a hold that fades before and after it (dominance,
 * after Cohen and Massaro 1993); lips that close and lips that are tucked in are laid over that and always reach their place.
 *
 * @phpstan-type Sound array{name: string, middle: float, half: float, gain: float}
 */
final class Mouth
{
    /** Milliseconds beyond which a sound asks for nothing. */
    private const REACH = 240.0;

    /** The mouth is ahead of the sound, seconds. */
    private const LEAD = 0.02;

    /** Seconds in which lips close before a closure, and open after it; how early and how long at least it is full. */
    private const CLOSES = 0.06;

    private const OPENS = 0.06;

    private const EARLY = 0.025;

    private const LEAST = 0.07;

    /** A pause of so many seconds before a phrase is breathed in. */
    private const BREATH = 0.18;

    private const MOST_KNOWN = 4000;

    /** @var array<int, array<string, float>> shapes by frame, as far as they were asked for */
    private array $known = [];

    /** @var list<Sound> in time order; glides are two */
    private readonly array $sounds;

    /** @var array<string, list<array{float, float}>> spans in which lips are sealed or tucked */
    private readonly array $closures;

    /** @var array<int, string> frames that belong to one closure alone, by which kind it is: at least one each */
    private readonly array $keys;

    /** @var list<float> moments at which phrases begin after a breath */
    private readonly array $breaths;

    /** @param  float  $frame  seconds of a frame: a closure lasts two of them at least, and is never between two */
    public function __construct(private readonly Reading $reading, private readonly float $frame)
    {
        $sounds = $keys = [];
        $closures = ['seal' => [], 'tuck' => []];
        foreach ($reading->phones as $p) {
            array_push($sounds, ...$this->soundsOf($p));
            $kind = match (true) {
                in_array($p->name, MouthTable::SEALS, true) => 'seal', in_array($p->name, MouthTable::TUCKS, true) => 'tuck', default => '',
            };
            if ($kind !== '') {
                $from = $p->from - self::EARLY;
                $closures[$kind][] = [$from, max($from + max(self::LEAST, 2 * $frame), $p->to - 0.02)];
                $keys[self::keyFrame($p, $frame, $keys)] = $kind;
            }
        }
        $this->sounds = $sounds;
        $this->closures = $closures;
        $this->keys = $keys;
        $this->breaths = self::breathsOf($reading);
    }

    /**
     * The frame nearest the middle of a closure; the next one where that is another's.
     *
     * @param  array<int, string>  $taken  by their frames, rising
     */
    private static function keyFrame(Phone $p, float $frame, array $taken): int
    {
        $key = (int) round(($p->from + $p->to) / 2 / $frame);
        $last = array_key_last($taken);

        return $last !== null && $key <= $last ? $last + 1 : $key;
    }

    /** @return list<Sound> */
    private function soundsOf(Phone $p): array
    {
        $glide = MouthTable::GLIDES[$p->name] ?? null;
        $parts = $glide === null
            ? [[$p->name, $p->from, $p->to]]
            : [[$glide[0], $p->from, $p->from + $glide[2] * $p->seconds()], [$glide[1], $p->from + $glide[2] * $p->seconds(), $p->to]];
        $out = [];
        foreach ($parts as [$name, $from, $to]) {
            $length = $to - $from;
            $gain = $p->isVowel()
                ? (0.62 + 0.42 * min(1.1, $this->reading->loud(($from + $to) / 2))) * ($p->stressed ? 1.0 : 0.82)
                : 1.0;
            $out[] = [
                'name' => $name, 'middle' => ($from + $to) / 2,
                'half' => $p->isPause() ? max(0.0, $length / 2 - 0.05) : max(0.018, $length / 4), 'gain' => $gain,
            ];
        }

        return $out;
    }

    /** @return list<float> */
    private static function breathsOf(Reading $reading): array
    {
        $out = [];
        foreach ($reading->phones as $k => $p) {
            if ($p->isPause() && $p->seconds() >= self::BREATH && isset($reading->phones[$k + 1])) {
                $out[] = $p->to;
            }
        }

        return $out;
    }

    /**
     * The seven parameters at a moment of the reading, with how far lips are sealed (C) and tucked (Q).
     *
     * @return array{J: float, W: float, F: float, U: float, L: float, T: float, O: float, C: float, Q: float}
     */
    public function parameters(float $t): array
    {
        $sum = $all = ['J' => 0.0, 'W' => 0.0, 'F' => 0.0, 'U' => 0.0, 'L' => 0.0, 'T' => 0.0, 'O' => 0.0];
        foreach ($this->near($t + self::LEAD) as $s) {
            $off = $t + self::LEAD - $s['middle'];
            $tau = 1000.0 * max(0.0, abs($off) - $s['half']);
            $fades = max(0.0, 1.0 - $tau / self::REACH);
            if ($fades <= 0.0) {
                continue;
            }
            $slow = MouthTable::SLOW[$s['name']] ?? 1.0;
            foreach (MouthTable::of($s['name']) as $p => [$target, $hold]) {
                $rate = MouthTable::RATES[$p][$off < 0.0 ? 0 : 1] * ($p === 'W' || $p === 'F' ? $slow : 1.0);
                $d = $hold * exp(-$rate * $tau) * $fades;
                $sum[$p] += $d * $target * ($p === 'J' || $p === 'U' || $p === 'L' ? $s['gain'] : 1.0);
                $all[$p] += $d;
            }
        }
        $out = [];
        foreach ($sum as $p => $v) {
            $out[$p] = $v / ($all[$p] + 1e-4);
        }
        $breath = $this->breath($t);
        $out['J'] = max(0.0, $out['J'] + 0.16 * $breath);
        $out['L'] += 0.12 * $breath;

        /** @var array{J: float, W: float, F: float, U: float, L: float, T: float, O: float, C: float, Q: float} */
        return $out + $this->closures($t);
    }

    /**
     * Shapes of the face at a moment of the reading; nothing of what is not there.
     *
     * @return array<string, float>
     */
    public function at(float $t): array
    {
        if ($t < -0.1 || $t > $this->reading->seconds + 0.3) {
            return [];
        }
        $frame = $t / $this->frame;
        if (abs($frame - round($frame)) > 1e-6) {
            return $this->shapes($t);
        }
        // Frames are looked at again with every edit around them.
        if (count($this->known) > self::MOST_KNOWN) {
            $this->known = [];
        }

        return $this->known[(int) round($frame)] ??= $this->shapes($t);
    }

    /** @return array<string, float> */
    private function shapes(float $t): array
    {
        $p = $this->parameters($t);
        $seal = $p['C'];
        $tuck = $p['Q'] * (1.0 - $seal);
        $open = 1.0 - max($seal, $tuck);
        // Millimetres between the lips: the tongue shows only where there is room for it.
        $gap = $open * (22.0 * $p['J'] + 5.5 * $p['U'] + 7.0 * $p['L'] + 14.0 * $p['F'] - 2.0);
        $tongue = $open * Ease::clamp($gap / 15.0);

        return array_filter([
            'jawOpen' => $p['J'], 'seal' => $p['J'] * max($seal, 0.75 * $tuck), 'press' => 0.85 * $seal, 'lowerIn' => $tuck,
            'upperUp' => max(0.0, $p['U']) * $open, 'lowerDown' => max(0.0, $p['L']) * $open, 'funnel' => max(0.0, $p['F']) * $open,
            'pucker' => max(0.0, -$p['W']) + 0.5 * max(0.0, $p['F']) * $seal, 'stretchL' => max(0.0, $p['W']),
            'stretchR' => max(0.0, $p['W']), 'tongueUp' => max(0.0, $p['T']) * $tongue, 'tongueOut' => max(0.0, $p['O']) * $tongue,
        ], static fn (float $v): bool => $v > 1e-4);
    }

    /** @return list<Sound> those that may ask for something at a moment */
    private function near(float $t): array
    {
        $from = 0;
        $to = count($this->sounds);
        while ($from < $to) {
            $k = intdiv($from + $to, 2);
            $this->sounds[$k]['middle'] + $this->sounds[$k]['half'] < $t - self::REACH / 1000 ? $from = $k + 1 : $to = $k;
        }
        $out = [];
        for ($n = count($this->sounds); $from < $n; $from++) {
            if ($this->sounds[$from]['middle'] - $this->sounds[$from]['half'] > $t + self::REACH / 1000) {
                break;
            }
            $out[] = $this->sounds[$from];
        }

        return $out;
    }

    /** @return array{C: float, Q: float} how far lips are sealed and tucked; where one of them has its frame, the other gives way */
    private function closures(float $t): array
    {
        return match ($this->keys[(int) round($t / $this->frame)] ?? null) {
            'seal' => ['C' => 1.0, 'Q' => 0.0], 'tuck' => ['C' => 0.0, 'Q' => 1.0],
            default => ['C' => $this->closed('seal', $t), 'Q' => $this->closed('tuck', $t)],
        };
    }

    private function closed(string $kind, float $t): float
    {
        $most = 0.0;
        foreach ($this->closures[$kind] as [$from, $to]) {
            if ($t < $from - self::CLOSES || $t > $to + self::OPENS) {
                continue;
            }
            $most = max($most, match (true) {
                $t < $from => Ease::smooth(($t - $from + self::CLOSES) / self::CLOSES),
                $t > $to => Ease::smooth(($to + self::OPENS - $t) / self::OPENS), default => 1.0,
            });
        }

        return $most;
    }

    private function breath(float $t): float
    {
        foreach ($this->breaths as $to) {
            if ($t > $to - 0.35 && $t < $to - 0.05) {
                return sin(M_PI * ($t - $to + 0.35) / 0.3);
            }
        }

        return 0.0;
    }
}
