<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile;

use CrispReel\Core\Document\Contact;
use CrispReel\Core\Document\Item;
use CrispReel\Core\Document\Link;
use CrispReel\Core\Math\Angle;
use CrispReel\Core\Math\Placement;
use CrispReel\Core\Meeting\Meetings;

/**
 * Whom people look at by themselves: who speaks looks at whom they speak to and is looked at, two in one motion look at each other,
 * as do those of whom one hands something over. What is said of a look by hand comes before that.
 */
final readonly class Gazes
{
    /** Metres, and degrees off the way the body faces, in which somebody is spoken to. */
    private const FAR = 4.0;

    private const ASIDE = 65.0;

    /** Frames before and after, and in which eyes come and go. */
    private const AHEAD = 4;

    private const EASE = [8, 14];

    /** Seconds that eyes rest on somebody who may go on. */
    private const RESTS = 3.0;

    /** Of the way to the other that the head turns, the eyes do the rest: it has its own nods to make. */
    public const HEAD = 0.6;

    private WordLooks $words;

    public function __construct(private Draft $draft)
    {
        $this->words = new WordLooks($draft);
    }

    /** @return array<string, list<Hold>> by performer */
    public function holds(): array
    {
        $out = $this->spoken();
        foreach ($this->spans() as [$who, $whom, $from, $to]) {
            foreach ([[$who, $whom], [$whom, $who]] as [$looks, $at]) {
                if ($this->mayLook($looks, $from, $to, $out[$looks] ?? [])) {
                    $out[$looks][] = self::hold($looks, $at, $from, $to);
                }
            }
        }

        return $out;
    }

    private static function hold(string $looks, string $at, int $from, int $to): Hold
    {
        $none = new Placement([0.0, 0.0, 0.0]);

        return new Hold(new Contact(
            "gaze {$looks} {$from}", $looks, 'look', $at, 'head', from: max(0, $from - self::AHEAD), to: $to + self::AHEAD,
            easeIn: self::EASE[0], easeOut: self::EASE[1],
        ), null, $none, $none, by: self::HEAD);
    }

    /**
     * Lines: who speaks looks at whom they speak to, who listens at who speaks; eyes go straight from one to the next and rest where
     * they were in between.
     *
     * @return array<string, list<Hold>> by performer
     */
    private function spoken(): array
    {
        $dialogue = $this->draft->dialogue();
        $turns = [];
        $words = [];
        foreach ($this->draft->utterances() as $u) {
            $words[$u->line->item] = [...$words[$u->line->item] ?? [], ...$this->words->of($u)];
            $to = $dialogue->addressee($u);
            if ($to !== null) {
                $turns[$u->line->item][] = [$u, $to];
            }
        }
        foreach ($dialogue->heard() as $id => $heard) {
            foreach ($heard as $u) {
                $turns[$id][] = [$u, $u->line->item];
            }
        }
        $out = [];
        foreach ($turns as $who => $all) {
            usort($all, static fn (array $a, array $b): int => [$a[0]->start, $a[1]] <=> [$b[0]->start, $b[1]]);
            foreach (self::joined($all) as [$whom, $from, $to]) {
                foreach (self::besides($from, $to, $words[$who] ?? []) as [$a, $b]) {
                    if ($this->mayLook((string) $who, $a, $b, [])) {
                        $out[(string) $who][] = self::hold((string) $who, $whom, $a, $b);
                    }
                }
            }
        }
        foreach ($words as $who => $looks) {
            foreach ($looks as [$from, $to, $hold]) {
                if ($this->mayLook((string) $who, (int) $from, (int) $to, [], true)) {
                    $out[(string) $who][] = $hold;
                }
            }
        }

        return $out;
    }

    /**
     * What is left of a span beside looks that words ask for.
     *
     * @param  list<array{float, float, Hold}>  $words
     * @return list<array{int, int}>
     */
    private static function besides(int $from, int $to, array $words): array
    {
        $out = [];
        foreach ($words as [$a, $b]) {
            if ($b > $from && $a < $to) {
                $out[] = [$from, (int) $a];
                $from = (int) ceil($b);
            }
        }
        $out[] = [$from, $to];

        return array_values(array_filter($out, static fn (array $s): bool => self::AHEAD + self::EASE[0] < $s[1] - $s[0]));
    }

    /**
     * @param  list<array{Utterance, string}>  $turns  what is said, and whom it makes somebody look at, as they begin
     * @return list<array{string, int, int}> whom, from and up to which frame; the same one twice within moments is once
     */
    private static function joined(array $turns): array
    {
        $out = [];
        $last = null;
        foreach ($turns as [$u, $whom]) {
            [$from, $to] = [(int) floor($u->from), (int) ceil($u->to)];
            if ($last !== null && $last[0] === $whom && $from - $last[2] < self::RESTS * $u->perSecond) {
                $last = [$whom, $last[1], max($last[2], $to)];
            } else {
                $out[] = $last;
                $last = [$whom, $from, $to];
            }
        }
        $out[] = $last;

        return array_values(array_filter($out));
    }

    /**
     * Whether somebody's eyes are free: they are to meet others, nothing by hand says where they look, and nobody had them first.
     *
     * @param  list<Hold>  $before
     * @param  bool  $isAsked  a word of a line asks for it
     */
    private function mayLook(string $who, int $from, int $to, array $before, bool $isAsked = false): bool
    {
        $item = $this->draft->document->items[$who];
        if (! ($item->meets || $isAsked) || ! isset($this->draft->lanes()[$who]) || ! $this->draft->lanes()[$who]->figure->isHuman()) {
            return false;
        }
        $own = array_filter($this->draft->document->contacts, static fn (Contact $c): bool => $c->item === $who && $c->effector === 'look');
        foreach ([...array_values($own), ...array_map(static fn (Hold $h): Contact => $h->contact, $before)] as $c) {
            if ($c->from - $c->easeIn < $to && ($c->to === null || $c->to + $c->easeOut > $from)) {
                return false;
            }
        }

        return true;
    }

    /** @return list<array{string, string, int, int}> who, with whom, from and up to which frame, in the order in which they begin */
    private function spans(): array
    {
        $out = [];
        foreach ($this->draft->lanes() as $id => $lane) {
            $next = $lane->segments;
            foreach ($lane->segments as $k => $s) {
                $to = (int) ceil(min($s->end, $next[$k + 1]->start ?? INF));
                $whom = $this->partner((string) $id, $s);
                if ($whom !== null && $to - $s->start >= self::EASE[0]) {
                    $out[] = [(string) $id, $whom, (int) $s->start, $to];
                }
            }
        }
        usort($out, static fn (array $a, array $b): int => [$a[2], $a[0]] <=> [$b[2], $b[0]]);

        return $out;
    }

    private function partner(string $id, LaneSegment $s): ?string
    {
        // In some motions of two the heads are the motion's own: a cheek that is kissed does not turn.
        $recipe = $this->draft->assets->digest($this->draft->document->assets[$s->from->motion])['recipe'] ?? null;
        if (is_array($recipe) && Meetings::keepsHeads($recipe)) {
            return null;
        }
        $with = $this->draft->document->beat($s->from->play->with);
        if ($with !== null) {
            return $with->item === $id ? null : $with->item;
        }
        $doing = Doing::of($this->draft->assets, $this->draft->document->assets[$s->from->motion]);
        $meets = $doing === 'speaks' || $doing === 'gives';

        return $meets ? $this->nearest($id, ($s->start + min($s->end, $s->start + 240)) / 2) : null;
    }

    /** Who stands nearest before somebody's body at a frame. */
    private function nearest(string $id, float $frame): ?string
    {
        return self::nearestBefore($this->draft, $id, $frame);
    }

    /** Who stands nearest before somebody's body at a frame, among those who are on their own feet. */
    public static function nearestBefore(Draft $draft, string $id, float $frame): ?string
    {
        [$x, $z, $facing] = self::standing($draft, $id, $frame);
        $best = [self::FAR, null];
        foreach (array_keys($draft->lanes()) as $other) {
            $item = $draft->document->items[(string) $other];
            if ((string) $other === $id || $item->kind !== 'performer' || self::isCarried($draft, $item)) {
                continue;
            }
            [$ox, $oz] = self::standing($draft, (string) $other, $frame);
            $off = abs(rad2deg(Angle::wrapped(atan2($ox - $x, $oz - $z) - $facing)));
            $far = hypot($ox - $x, $oz - $z);
            if ($off < self::ASIDE && $far > 0.1 && $far < $best[0]) {
                $best = [$far, (string) $other];
            }
        }

        return $best[1];
    }

    private static function isCarried(Draft $draft, Item $item): bool
    {
        return array_filter($draft->document->links, static fn (Link $l): bool => $l->child === $item->id) !== [];
    }

    /** @return array{float, float, float} x, z and heading of the hips in the scene, as far as beats say */
    public static function standing(Draft $draft, string $id, float $frame): array
    {
        $lane = $draft->lanes()[$id] ?? null;
        $place = $draft->places()[$id];
        $heading = deg2rad($draft->document->items[$id]->headingDeg);
        if ($lane === null) {
            return [$place->position[0], $place->position[2], $heading];
        }
        [$x, $z, $turn] = $lane->figure->standing($lane->row($frame), $lane->figure->hips);
        [$wx, , $wz] = $place->point([$x, 0.0, $z]);

        return [$wx, $wz, $turn + $heading];
    }
}
