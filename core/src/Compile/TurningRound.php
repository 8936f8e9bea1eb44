<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile;

use CrispReel\Core\Document\AssetSource;
use CrispReel\Core\Document\Command;
use CrispReel\Core\Document\Contact;
use CrispReel\Core\Math\Angle;
use CrispReel\Core\Math\Q4;

/** Turns on the spot for somebody who follows with the eyes what head and trunk alone cannot. */
final readonly class TurningRound
{
    /** Degrees aside beyond which feet step round, and frames from one look at it to the next. */
    private const BEYOND = 60.0;

    private const EVERY = 3;

    /** Frames that a turn begins before it is needed. */
    private const AHEAD = 6;

    public function __construct(private Poses $scene, private AssetSource $assets, private string $item)
    {
    }

    /** @return list<Command> beats to be added; none: the performer is busy, or nothing is that far aside */
    public function commands(Contact $contact, int $frames): array
    {
        $out = [];
        $turned = 0.0;
        $last = min($frames, $contact->to ?? $frames);
        for ($f = $contact->from; $f < $last; $f += self::EVERY) {
            $off = $this->aside($contact, $f, $turned);
            if (abs($off) <= self::BEYOND) {
                continue;
            }
            $start = max($contact->from, $f - self::AHEAD);
            if (! $this->isFree($start)) {
                return [];
            }
            // The turns that the house has, and the frames of 24 a second that they take.
            [$degrees, $takes] = match (true) {
                abs($off) <= 67.5 => [45, 16], abs($off) <= 135.0 => [90, 22], default => [180, 34],
            };
            $side = $off > 0.0 ? 'left' : 'right';
            $out[] = Command::of('beat.add', item: $this->item, motion: "turn-{$degrees}-{$side}", start: $start);
            $turned += $off > 0.0 ? $degrees : -$degrees;
            $f = $start + (int) ceil($takes * $this->scene->document->rate->perSecond() / 24.0);
        }

        return $out;
    }

    /** Degrees from the way the body would face, turned so far already, to what is looked at; to the left positive. */
    private function aside(Contact $contact, int $frame, float $turned): float
    {
        $moment = $this->scene->at($frame)->blind();
        $lane = $this->scene->lanes[$this->item];
        $hips = $moment->joint($this->item, $lane->figure->hips);
        $facing = Q4::heading(Q4::mul($hips->rotation, Q4::conjugate($lane->figure->restTurn($lane->figure->hips))));
        $hold = array_values(array_filter(
            $this->scene->holds[$this->item] ?? [], static fn (Hold $h): bool => $h->contact->id === $contact->id,
        ))[0] ?? null;
        if ($hold === null) {
            return 0.0;
        }
        $to = $moment->target($hold)->position;
        $way = atan2($to[0] - $hips->position[0], $to[2] - $hips->position[2]);

        return rad2deg(Angle::wrapped($way - $facing - deg2rad($turned)));
    }

    /** Whether somebody stands with nothing to do, so that a turn leaves out nothing. */
    private function isFree(int $frame): bool
    {
        $now = null;
        foreach ($this->scene->lanes[$this->item]->segments as $s) {
            $now = $s->start <= $frame ? $s : $now;
        }
        if ($now === null) {
            return true;
        }
        $waits = Doing::of($this->assets, $this->scene->document->assets[$now->from->motion]) === 'waits';

        return $now->riding === null && $now->stance === null && ($frame >= $now->end || $waits);
    }
}
