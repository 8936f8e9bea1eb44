<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile;

use CrispReel\Core\Math\Ease;
use CrispReel\Core\Math\Noise;
use CrispReel\Core\Speech\Emotions;

/**
 * What head and brows do with what is said: of who says it, and of who listens.
 *
 * @phpstan-type Accent array{float, bool}
 */
final class Accents
{
    /** Degrees of a nod with a word, of the head's tilt at a question, of a listener's two nods. */
    private const NOD = 4.2;

    private const TILT = 4.0;

    private const HEARD = [4.2, 2.4];

    /** Degrees of a nod and of a shake of the head that a line asks for. */
    private const DONE = [9.0, 11.0];

    /** Seconds between two nods at least, and between two brows. */
    private const APART = [0.8, 2.0];

    /** Noises between words: seconds, degrees that the nose goes down, bursts a second, and what the face does. */
    private const NOISES = [
        'breath' => [0.5, -1.5, 0.0, ['jawOpen' => 0.18]],
        'sigh' => [1.1, 5.0, 0.0, ['jawOpen' => 0.16, 'funnel' => 0.3, 'browInUp' => 0.35, 'blink' => 0.45]],
        'gasp' => [0.45, -4.0, 0.0, ['jawOpen' => 0.5, 'wide' => 0.6, 'browOutUp' => 0.7, 'browInUp' => 0.5]],
        'laugh' => [1.0, -5.0, 5.2, ['jawOpen' => 0.4, 'cornerUp' => 0.9, 'cheek' => 0.6, 'squint' => 0.4, 'upperUp' => 0.3]],
        'cough' => [0.7, 9.0, 3.3, ['jawOpen' => 0.35, 'funnel' => 0.3, 'blink' => 0.8, 'browDown' => 0.4]],
        'hm' => [0.55, 3.0, 0.0, ['press' => 0.5, 'browOutUp' => 0.3]],
        'sniff' => [0.45, -3.0, 0.0, ['sneer' => 0.5, 'press' => 0.3]],
    ];

    /** Seconds that nobody listens without showing it. */
    private const MUTE = 3.0;

    /** @var array<string, list<array{float, string}>> answers of who listens, by line */
    private array $listened = [];

    /** @var array<string, array{list<float>, list<Accent>}> seconds of nods and brows by line */
    private array $known = [];

    public function __construct(private readonly int $seed)
    {
    }

    /**
     * Brows and nods where the speaker puts weight; the head leans at the end of a question, and sways a little all along.
     *
     * @param  array<string, float>  $face
     * @param  array{float, float, float, float, float}  $held
     */
    public function spoken(array &$face, array &$held, Utterance $u, float $t): void
    {
        [$nods, $brows] = $this->known[$u->line->id] ??= self::of($u);
        foreach ($nods as $at) {
            $held[1] += -1.2 * self::bump($t, $at - 0.28, $at - 0.10, $at) + self::NOD * self::bump($t, $at - 0.10, $at + 0.06, $at + 0.32);
        }
        foreach ($brows as [$at, $isLast]) {
            $w = self::plateau($t, $at - 0.20, $at - 0.06, $at + 0.06, $at + 0.34) * ($isLast ? 1.0 : 0.7);
            foreach (['browOutUpL' => 0.55, 'browOutUpR' => 0.55, 'browInUpL' => 0.40, 'browInUpR' => 0.40] as $name => $v) {
                $face[$name] = max($face[$name] ?? 0.0, $w * $v);
            }
        }
        $this->done($face, $held, $u, $t);
        [$from, $to] = $u->spoken;
        if ($u->asks) {
            $held[2] += self::side($u) * self::TILT
                * self::plateau($t, $to - 0.7, $to - 0.1, $to + 0.3, $to + 0.9);
        }
        $talks = self::plateau($t, $from - 0.2, $from + 0.2, $to - 0.2, $to + 0.4);
        $held[0] += 1.6 * $talks * Noise::value(0.62 * $t, $this->seed + 31);
        $held[1] += 0.9 * $talks * Noise::value(0.34 * $t, $this->seed + 32);
        $held[2] += 1.3 * $talks * Noise::value(0.50 * $t, $this->seed + 33);
    }

    /**
     * What a line says in brackets, where it stands.
     *
     * @param  array<string, float>  $face
     * @param  array{float, float, float, float, float}  $held
     */
    private function done(array &$face, array &$held, Utterance $u, float $t): void
    {
        foreach ($u->reading->events as [$what, $at]) {
            if ($what === 'nod') {
                $held[1] += self::DONE[0] * (
                    self::bump($t, $at - 0.1, $at + 0.1, $at + 0.34) + 0.6 * self::bump($t, $at + 0.34, $at + 0.52, $at + 0.8)
                );
            } elseif ($what === 'shake') {
                $held[0] += self::DONE[1] * sin(
                    2 * M_PI * 2.1 * ($t - $at),
                ) * self::plateau($t, $at - 0.05, $at + 0.15, $at + 0.85, $at + 1.2);
            } elseif (isset(self::NOISES[$what])) {
                self::noise($face, $held, $what, $t - $at);
            } elseif ($what === 'blink') {
                $shut = self::plateau($t, $at - 0.1, $at, $at + 0.04, $at + 0.2);
                foreach (['blinkL', 'blinkR'] as $lid) {
                    $face[$lid] = max($face[$lid] ?? 0.0, $shut);
                }
            }
        }
    }

    /**
     * @param  array<string, float>  $face
     * @param  array{float, float, float, float, float}  $held
     */
    private static function noise(array &$face, array &$held, string $what, float $t): void
    {
        [$seconds, $down, $beats, $shapes] = self::NOISES[$what];
        $w = self::plateau($t, -0.06, 0.3 * $seconds, 0.7 * $seconds, $seconds + 0.15);
        // A laugh and a cough come in bursts.
        $w *= $beats === 0.0 ? 1.0 : 0.65 + 0.35 * cos(2 * M_PI * $beats * $t);
        $held[1] += $down * $w;
        foreach (Emotions::sided($shapes) as $name => $v) {
            $face[$name] = max($face[$name] ?? 0.0, $w * $v);
        }
    }

    /** @return array{list<float>, list<Accent>} seconds of nods, of brows with whether they are at the end of a phrase */
    private static function of(Utterance $u): array
    {
        $nods = $brows = [];
        [$nodded, $raised] = [-INF, -INF];
        foreach ($u->reading->accents() as [$at, $isLast]) {
            if ($at - $nodded >= self::APART[0]) {
                $nods[] = $nodded = $at;
            }
            if ($at - $raised >= self::APART[1]) {
                $brows[] = [$at, $isLast];
                $raised = $at;
            }
        }

        return [$nods, $brows];
    }

    /**
     * Who listens nods at the ends of clauses, and is struck by what is asked or shouted.
     *
     * @param  array<string, float>  $face
     * @param  array{float, float, float, float, float}  $held
     */
    public function heard(array &$face, array &$held, Utterance $u, float $t): void
    {
        if ($t < -0.5 || $t > $u->reading->seconds + 2.0) {
            return;
        }
        foreach ($this->answers($u) as [$at, $what]) {
            if ($what === 'nod') {
                $held[1] += self::HEARD[0] * self::bump($t, $at, $at + 0.2, $at + 0.5)
                    + self::HEARD[1] * self::bump($t, $at + 0.5, $at + 0.7, $at + 0.95);
            } elseif ($what === 'tilt') {
                $held[2] += self::side($u) * 0.8 * self::TILT * self::plateau($t, $at, $at + 0.3, $at + 0.7, $at + 1.3);
            } else {
                foreach (['browOutUpL', 'browOutUpR', 'browInUpL', 'browInUpR'] as $name) {
                    $face[$name] = max($face[$name] ?? 0.0, 0.4 * self::plateau($t, $at, $at + 0.15, $at + 0.4, $at + 0.8));
                }
            }
        }
        [$from, $to] = $u->spoken;
        if ($u->shouts) {
            FaceLayer::show($face, $held, 'surprised', 0.45 * self::plateau($t, $from + 0.15, $from + 0.35, $from + 0.7, $from + 1.3));
        } elseif ($u->asks) {
            $w = self::plateau($t, $to - 0.3, $to, $to + 0.5, $to + 1.2);
            foreach (['browOutUpL' => 0.6, 'browOutUpR' => 0.5, 'browInUpL' => 0.35, 'browInUpR' => 0.35] as $name => $v) {
                $face[$name] = max($face[$name] ?? 0.0, $w * $v);
            }
        }
    }

    /**
     * Seconds at which who listens shows that they do, and how: nods at the ends of clauses, brows or a tilt where none ends for long.
     *
     * @return list<array{float, string}>
     */
    public function answers(Utterance $u): array
    {
        if (isset($this->listened[$u->line->id])) {
            return $this->listened[$u->line->id];
        }
        $out = [];
        $last = $u->spoken[0];
        foreach ($u->phrases as [, $to]) {
            $at = $to + 0.22;
            for ($n = 0; $at - $last > self::MUTE; $n++) {
                $last += min(self::MUTE - Noise::hash((int) round(10.0 * $last), $this->seed + 34), ($at - $last) / 2);
                $out[] = [$last, Noise::hash($n, $this->seed + crc32($u->line->id)) < 0.5 ? 'tilt' : 'brows'];
            }
            if ($out === [] || $at - $out[count($out) - 1][0] >= self::APART[0]) {
                $out[] = [$at, 'nod'];
                $last = $at;
            }
        }

        return $this->listened[$u->line->id] = $out;
    }

    private static function side(Utterance $u): float
    {
        return Noise::hash(crc32($u->line->id), 5) < 0.5 ? 1.0 : -1.0;
    }

    private static function bump(float $t, float $from, float $most, float $to): float
    {
        return self::plateau($t, $from, $most, $most, $to);
    }

    private static function plateau(float $t, float $from, float $full, float $falls, float $to): float
    {
        return $t <= $from || $t >= $to ? 0.0 : min(
            Ease::smooth(($t - $from) / max(1e-6, $full - $from)), Ease::smooth(($to - $t) / max(1e-6, $to - $falls)),
        );
    }
}
