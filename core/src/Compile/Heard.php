<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile;

use CrispReel\Core\Document\AssetSource;
use CrispReel\Core\Document\Document;
use CrispReel\Core\Document\Sound;
use CrispReel\Core\Sound\Lowering;

/** A sound of the scene, settled: the frames in which it is heard, which may lie between two. It ends with the scene at the latest. */
final readonly class Heard
{
    /** Decibels by which ambience and music give way to speech. */
    public const LOWERED = 14.0;

    /** @param  float  $seconds  of one turn of it */
    public function __construct(public Sound $sound, public float $start, public float $end, public float $seconds)
    {
    }

    /**
     * @param  list<Utterance>  $utterances
     * @return list<self> in the order in which they begin
     */
    public static function of(Document $document, AssetSource $assets, array $utterances, int $frames): array
    {
        $rate = $document->rate->perSecond();
        $begins = [];
        foreach ($utterances as $u) {
            $begins[$u->line->id] = $u->start;
        }
        $out = [];
        foreach ($document->sounds as $sound) {
            $said = $assets->digest($document->assets[$sound->asset])['seconds'] ?? 0.0;
            $whole = is_int($said) || is_float($said) ? (float) $said : 0.0;
            $seconds = min($whole, $sound->sourceOut ?? INF) - $sound->sourceIn;
            $start = (float) $sound->start + ($sound->line === null ? 0.0 : $begins[$sound->line] ?? 0.0);
            $end = min((float) $frames, $sound->repeats ? (float) ($sound->until ?? $frames) : $start + $seconds * $rate);
            if ($seconds > 0.0 && $end > $start) {
                $out[] = new self($sound, $start, $end, $seconds);
            }
        }
        usort($out, static fn (self $a, self $b): int => [$a->start, $a->sound->id] <=> [$b->start, $b->sound->id]);

        return $out;
    }

    /**
     * How ambience and music give way to what is said, in seconds from a frame on.
     *
     * @param  list<Utterance>  $utterances
     */
    public static function lowering(array $utterances, int $frame = 0): Lowering
    {
        return new Lowering(array_map(
            static fn (Utterance $u): array => [($u->from - $frame) / $u->perSecond, ($u->to - $frame) / $u->perSecond], $utterances,
        ), self::LOWERED);
    }
}
