<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile;

use CrispReel\Core\Document\Contact;
use CrispReel\Core\Document\Document;
use CrispReel\Core\Math\Noise;
use CrispReel\Core\Math\Placement;
use CrispReel\Core\Speech\Script;

/** Where a line has its speaker look, from a word on: at somebody or something by name, or away, up, down, to a side. */
final readonly class WordLooks
{
    /** Frames in which eyes and head go there: eyes begin with the word. */
    private const EASE = 5;

    /** Share of the way that the head turns. */
    private const HEAD = 0.85;

    /** Degrees to the left and up, by the word. */
    private const WAYS = ['up' => [0.0, 28.0], 'down' => [0.0, -34.0], 'left' => [42.0, 0.0], 'right' => [-42.0, 0.0]];

    public function __construct(private Draft $draft)
    {
    }

    /**
     * @return list<array{float, float, Hold}> from and up to which frame, and at what
     */
    public function of(Utterance $u): array
    {
        $looks = array_values(array_filter($u->reading->events, static fn (array $e): bool => Script::look($e[0]) !== null));
        $out = [];
        foreach ($looks as $k => [$do, $at]) {
            [$from, $to] = [$u->frame($at), isset($looks[$k + 1]) ? $u->frame($looks[$k + 1][1]) : $u->to];
            $hold = $this->hold($u, (string) Script::look($do), (int) round($from), (int) round($to));
            if ($to > $from && $hold !== null) {
                $out[] = [$from, $to, $hold];
            }
        }

        return $out;
    }

    private function hold(Utterance $u, string $at, int $from, int $to): ?Hold
    {
        $who = $u->line->item;
        $other = self::named($this->draft->document, $at, $who);
        if ($at === 'back' || ($other === null && ! isset(self::WAYS[$at]) && $at !== 'away')) {
            return null;
        }
        $isPerson = $other !== null && isset($this->draft->lanes()[$other]);
        $contact = new Contact(
            "word {$who} {$from}", $who, 'look', $other, $isPerson ? 'head' : '', from: $from + self::EASE, to: max(
                $from + self::EASE + 1, $to,
            ),
            easeIn: self::EASE, easeOut: 2 * self::EASE,
        );
        $none = new Placement([0.0, 0.0, 0.0]);
        $place = match (true) {
            $isPerson => $none, $other !== null => new Placement(
                $this->middle($other),
            ), default => new Placement($this->aside($u, $at, $from)),
        };

        return new Hold($contact, null, $place, $none, by: self::HEAD);
    }

    /** An item by its name, or by the first word of it. */
    public static function named(Document $document, string $name, string $besides): ?string
    {
        foreach ([true, false] as $whole) {
            foreach ($document->items as $id => $item) {
                $own = mb_strtolower($item->name);
                if ((string) $id !== $besides && ($whole ? $own === $name : explode(' ', $own)[0] === $name)) {
                    return (string) $id;
                }
            }
        }

        return null;
    }

    /** @return array{float, float, float} the middle of a thing, in its own space */
    private function middle(string $id): array
    {
        $box = $this->draft->assets->digest($this->draft->document->assets[$this->draft->document->items[$id]->asset])['bounds'] ?? null;
        [$low, $high] = is_array($box) && is_array($box[0] ?? null) && is_array($box[1] ?? null) ? [$box[0], $box[1]] : [[], []];
        $number = static fn (mixed $v): float => is_int($v) || is_float($v) ? (float) $v : 0.0;
        $at = static fn (int $k): float => ($number($low[$k] ?? 0.0) + $number($high[$k] ?? 0.0)) / 2;

        return [$at(0), $at(1), $at(2)];
    }

    /** @return array{float, float, float} a place two metres off, to where a word points */
    private function aside(Utterance $u, string $way, int $frame): array
    {
        $who = $u->line->item;
        [$x, $z, $facing] = Gazes::standing($this->draft, $who, $frame);
        $side = Noise::hash(crc32($u->line->id), 8) < 0.5 ? 1.0 : -1.0;
        [$left, $up] = self::WAYS[$way] ?? [34.0 * $side, -8.0];
        $turn = $facing + deg2rad($left);
        $lane = $this->draft->lanes()[$who];
        $head = $lane->figure->skeleton->roles['head'] ?? $lane->figure->hips;
        $own = $lane->figure->skeleton->jointIn($lane->row($frame), $lane->figure->hips, $head)[0][1];
        $height = $this->draft->places()[$who]->position[1] + $own + 0.1;

        return [$x + 2.0 * sin($turn), $height + 2.0 * tan(deg2rad($up)), $z + 2.0 * cos($turn)];
    }
}
