<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile;

use CrispReel\Core\Document\AssetSource;
use CrispReel\Core\Document\Document;
use CrispReel\Core\Document\Sound;
use CrispReel\Core\Math\Noise as Chance;

/** A sound of the scene, settled: the frames in which it is heard, which may lie between two. It ends with the scene at the latest. */
final readonly class Heard
{
    /** Decibels of a step, of a thing that lands, of wheels that roll; and by which steps differ. */
    private const LEVELS = ['step' => -13.0, 'land' => -8.0, 'roll' => -12.0];

    private const DIFFER = 1.5;

    /** Decibels that ten times as hard is louder: half of what the force is, or soft steps would not be heard. */
    private const PER = 10.0;

    /** Seconds in which wheels are heard to begin and to end. */
    private const ROLLS = 0.18;

    /**
     * @param  float  $seconds  of one turn of it
     * @param  list<float>  $loud  LUFS of each second of the whole file; empty: nobody has measured it
     */
    public function __construct(
        public Sound $sound, public float $start, public float $end, public float $seconds, public ?Noise $noise = null,
        public array $loud = [],
    ) {
    }

    /**
     * @param  list<Utterance>  $utterances
     * @param  list<Noise>  $noises  what is heard to happen
     * @return list<self> in the order in which they begin
     */
    public static function of(Document $document, AssetSource $assets, array $utterances, int $frames, array $noises = []): array
    {
        $rate = $document->rate->perSecond();
        $begins = self::begins($document, $utterances, $noises);
        $out = $document->mix->happens ? self::happening($document, $assets, $noises, $frames) : [];
        foreach ($document->sounds as $sound) {
            $digest = $assets->digest($document->assets[$sound->asset]);
            $said = $digest['seconds'] ?? 0.0;
            $whole = is_int($said) || is_float($said) ? (float) $said : 0.0;
            $seconds = min($whole, $sound->sourceOut ?? INF) - $sound->sourceIn;
            $start = $sound->start + ($begins[$sound->line ?? $sound->contact ?? $sound->thing ?? ''] ?? 0.0);
            $end = min((float) $frames, $sound->repeats ? (float) ($sound->until ?? $frames) : $start + $seconds * $rate);
            if ($seconds > 0.0 && $end > $start) {
                $loud = array_filter((array) ($digest['loud'] ?? []), static fn (mixed $v): bool => is_int($v) || is_float($v));
                $out[] = new self($sound, $start, $end, $seconds, loud: array_values(array_map(floatval(...), $loud)));
            }
        }
        usort($out, static fn (self $a, self $b): int => [$a->start, $a->sound->id] <=> [$b->start, $b->sound->id]);

        return $out;
    }

    /** Whether it is of those that speech is not to be covered by. */
    public function givesWay(): bool
    {
        return in_array($this->sound->lane, ['ambience', 'music'], true);
    }

    /**
     * @param  list<Utterance>  $utterances
     * @param  list<Noise>  $noises
     * @return array<string, float> the frame at which that begins which a sound may hang on, by its id
     */
    private static function begins(Document $document, array $utterances, array $noises): array
    {
        $out = [];
        foreach ($utterances as $u) {
            $out[$u->line->id] = $u->start;
        }
        foreach ($document->contacts as $c) {
            $out[$c->id] = (float) $c->from;
        }
        foreach ($noises as $n) {
            $out[$n->item] ??= $n->from;
        }

        return $out;
    }

    /**
     * What happens, by sounds of the kit that are made for it.
     *
     * @param  list<Noise>  $noises
     * @return list<self>
     */
    private static function happening(Document $document, AssetSource $assets, array $noises, int $frames): array
    {
        $made = [];
        foreach ($document->assets as $asset) {
            $digest = $asset->kind === 'sound' ? $assets->digest($asset) : [];
            $noise = $digest['noise'] ?? null;
            if (is_array($noise) && is_string($noise['of'] ?? null)) {
                $number = static fn (mixed $v): float => is_int($v) || is_float($v) ? (float) $v : 0.0;
                $made[$noise['of']] = [
                    $asset->id, $number($noise['every'] ?? 0), (int) $number($noise['count'] ?? 1), $number($digest['seconds'] ?? 0),
                ];
            }
        }
        $out = [];
        foreach ($noises as $k => $n) {
            $found = $made["{$n->what} {$n->on}"] ?? $made[$n->what] ?? null;
            if ($found !== null && $n->from < $frames) {
                $out[] = self::sounding($n, $found, $frames, $document->rate->perSecond(), crc32($n->item) + $k);
            }
        }

        return $out;
    }

    /**
     * @param  array{string, float, int, float}  $made  the asset, seconds from one to the next in it, how many there are, seconds of all
     */
    private static function sounding(Noise $n, array $made, int $frames, float $rate, int $seed): self
    {
        [$asset, $every, $count, $whole] = $made;
        $level = self::LEVELS[$n->what] + self::PER * log10(max(0.1, $n->strength)) + self::DIFFER * (2.0 * Chance::hash(1, $seed) - 1.0);
        $rolls = $n->what === 'roll';
        $in = $every * (int) floor($count * Chance::hash(2, $seed));
        $seconds = $rolls ? $whole : min($whole - $in, $every > 0.0 ? $every : $whole);

        return new self(new Sound(
            "~{$n->what}{$n->item}.".(int) round($n->from), $asset, (int) round($n->from), null, $rolls ? 0.0 : $in,
            $rolls ? null : $in + $seconds, min(12.0, round($level, 2)), $rolls ? self::ROLLS : 0.0, $rolls ? self::ROLLS : 0.0, $rolls,
            lane: 'steps',
        ), $n->from, min((float) $frames, $rolls ? $n->to : $n->from + $seconds * $rate), $seconds, $n);
    }
}
