<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile;

use CrispReel\Core\Document\AssetSource;
use CrispReel\Core\Document\Document;
use CrispReel\Core\Document\Line;
use CrispReel\Core\Speech\Guess;
use CrispReel\Core\Speech\Mouth;
use CrispReel\Core\Speech\Reading;
use CrispReel\Core\Speech\Script;

/** When each line begins and how it is read; what no voice has read yet is guessed from its letters. */
final class Utterances
{
    /** @var array<string, Line> */
    private array $lines = [];

    /** @var array<string, Utterance> */
    private array $settled = [];

    private function __construct(
        private readonly Document $document, private readonly AssetSource $assets, private readonly Memory $memory,
    ) {
    }

    /** @return list<Utterance> in the order in which they begin */
    public static function of(Document $document, AssetSource $assets, Memory $memory): array
    {
        $self = new self($document, $assets, $memory);
        foreach ($document->lines as $line) {
            $self->lines[$line->id] = $line;
        }
        foreach ($self->lines as $line) {
            $self->utterance($line, []);
        }
        $all = array_values($self->settled);
        usort($all, static fn (Utterance $a, Utterance $b): int => [$a->start, $a->line->id] <=> [$b->start, $b->line->id]);

        return $all;
    }

    /** @param  array<string, true>  $coming  lines that wait for this one: a circle begins at its own frame */
    private function utterance(Line $line, array $coming): Utterance
    {
        if (isset($this->settled[$line->id])) {
            return $this->settled[$line->id];
        }
        $coming[$line->id] = true;
        $before = $line->after === null || isset($coming[$line->after]) ? null : $this->lines[$line->after] ?? null;
        $rate = $this->document->rate->perSecond();
        $start = $before === null
            ? (float) $line->start
            : max(0.0, $this->utterance($before, $coming)->end + $line->pause * $rate);
        [$reading, $digest] = $this->reading($line);
        $mouth = $this->memory->of("mouth {$digest} {$rate}", static fn (): Mouth => new Mouth($reading, 1.0 / $rate));

        return $this->settled[$line->id] = new Utterance($line, round($start), $reading, $mouth, $digest, $rate);
    }

    /** @return array{Reading, string} and what names it */
    private function reading(Line $line): array
    {
        $asset = $this->document->assets[$line->reading] ?? null;
        $said = $asset === null ? null : $this->assets->digest($asset)['reading'] ?? null;
        if ($asset !== null && is_array($said)) {
            $reading = $this->memory->of("reading {$asset->digest}", static fn (): Reading => Reading::fromArray($said));

            return [$reading, $asset->digest];
        }
        $seconds = $this->recorded($line);
        $name = 'guess '.hash('xxh128', "{$line->pace} {$seconds} {$line->text}");

        return [$this->memory->of($name, static function () use ($line, $seconds): Reading {
            $guess = Guess::of(Script::heard($line->text), $line->pace)->doing(Script::does($line->text));

            return $seconds === null ? $guess : $guess->lasting($seconds);
        }), $name];
    }

    /** Seconds of the recording that is heard in its place, before anybody has listened to it; null: a voice reads it. */
    private function recorded(Line $line): ?float
    {
        foreach ($this->document->takes as $take) {
            if ($take->line === $line->id && $take->chosen) {
                $whole = $this->assets->digest($this->document->assets[$take->asset])['seconds'] ?? null;
                $to = $take->sourceOut ?? (is_int($whole) || is_float($whole) ? (float) $whole : null);

                return $to === null ? null : max(0.1, $to - ($take->sourceIn ?? 0.0));
            }
        }

        return null;
    }
}
