<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile\Passes;

use CrispReel\Core\Compile\Draft;
use CrispReel\Core\Compile\Eyes;
use CrispReel\Core\Compile\Glances;
use CrispReel\Core\Compile\Hold;
use CrispReel\Core\Compile\Lane;
use CrispReel\Core\Compile\Pass;
use CrispReel\Core\Compile\Utterance;
use CrispReel\Core\Document\Item;
use CrispReel\Core\Motion\Blinks;
use CrispReel\Core\Rig\FaceShapes;

/** When everybody blinks, and where their eyes rest on a face that they look at by themselves. */
final class Lids implements Pass
{
    /** Seconds around a blink that a line asks for in which no other comes. */
    private const ALONE = 1.0;

    private Draft $draft;

    public function settle(Draft $draft): void
    {
        $this->draft = $draft;
        $heard = $draft->dialogue()->heard();
        $out = [];
        foreach ($draft->lanes() as $id => $lane) {
            $item = $draft->document->items[$id];
            if (! isset($lane->figure->skeleton->roles['head'])) {
                continue;
            }
            $says = array_values(array_filter($draft->utterances(), static fn (Utterance $u): bool => $u->line->item === $item->id));
            $looks = array_values(array_filter(
                $draft->holds()[$id] ?? [], static fn (Hold $h): bool => $h->contact->effector === 'look',
            ));
            $own = array_filter($looks, static fn (Hold $h): bool => $h->by < 1.0);
            $out[$id] = new Eyes(
                $lane->figure, $lane->life === null ? null : $this->blinks($item, $lane, $says, $looks),
                $own === [] ? null : new Glances($says, $heard[$id] ?? [], crc32($item->id)), $this->keyed($item), $this->rate(),
            );
        }
        $draft->putEyes($out);
    }

    private function rate(): float
    {
        return $this->draft->document->rate->perSecond();
    }

    /**
     * @param  list<Utterance>  $says
     * @param  list<Hold>  $looks
     */
    private function blinks(Item $item, Lane $lane, array $says, array $looks): Blinks
    {
        $rate = $this->rate();
        $shifts = array_map(static fn (Hold $h): float => ($h->contact->from - $h->contact->easeIn) / $rate, $looks);
        $ends = $asked = [];
        foreach ($says as $u) {
            foreach ($u->phrases as [, $to]) {
                $ends[] = $u->frame($to) / $rate;
            }
            foreach ($u->reading->events as [$what, $at]) {
                if ($what === 'blink') {
                    $asked[] = [$u->frame($at) / $rate - self::ALONE, $u->frame($at) / $rate + self::ALONE];
                }
            }
        }

        return new Blinks($item->life, crc32($item->id), $shifts, $ends, [...$this->keyed($item), ...$asked, ...$this->recorded($lane)]);
    }

    /** @return list<array{float, float}> spans, in seconds, in which somebody has keyed lids */
    private function keyed(Item $item): array
    {
        $rate = $this->rate();
        $out = [];
        foreach ($this->draft->document->expressions as $e) {
            $lids = array_filter(array_keys($e->shapes), static fn (int|string $name): bool => FaceShapes::isLid((string) $name));
            if ($e->item === $item->id && $lids !== []) {
                $out[] = [($e->from - $e->easeIn) / $rate, $e->to === null ? INF : ($e->to + $e->easeOut) / $rate];
            }
        }

        return $out;
    }

    /** @return list<array{float, float}> spans, in seconds, of recorded motions that blink themselves */
    private function recorded(Lane $lane): array
    {
        $first = 3 + 4 * $lane->figure->skeleton->count();
        $lids = array_filter($lane->figure->morphs, FaceShapes::isLid(...));
        $out = [];
        foreach ($lane->segments as $s) {
            if ($s->lives) {
                continue;
            }
            $moves = $this->draft->memory->of("lids {$s->tableKey}", static fn (): bool => array_filter(
                array_keys($lids), static fn (int $k): bool => $s->table->moves($first + $k, 0.5),
            ) !== []);
            if ($moves) {
                $out[] = [$s->start / $this->rate(), $s->end / $this->rate()];
            }
        }

        return $out;
    }
}
