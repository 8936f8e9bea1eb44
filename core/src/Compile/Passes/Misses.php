<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile\Passes;

use CrispReel\Core\Compile\Draft;
use CrispReel\Core\Compile\Note;
use CrispReel\Core\Compile\Pass;
use CrispReel\Core\Compile\Poses;

/** Notes of contacts that are not reached. */
final class Misses implements Pass
{
    /** Metres that a contact may miss before a note says so. */
    private const MISS = 0.01;

    public function settle(Draft $draft): void
    {
        $draft->note(...self::outOfReach($draft->poses(), $draft->frames()));
    }

    /** @return list<Note> contacts that are not reached at a frame looked at: first, middle and last */
    private static function outOfReach(Poses $scene, int $frames): array
    {
        $notes = [];
        foreach ($scene->holds as $item => $holds) {
            foreach ($holds as $h) {
                $c = $h->contact;
                $last = min($frames, $c->to ?? $frames) - 1;
                foreach (array_unique([$c->from, intdiv($c->from + $last, 2), max($c->from, $last)]) as $frame) {
                    $moment = $scene->at($frame);
                    $moment->row($item);
                    $miss = $moment->missing[$c->id] ?? 0.0;
                    if ($miss > self::MISS) {
                        $who = $scene->document->items[$item]->name;
                        $part = [
                            'handL' => 'left hand', 'handR' => 'right hand', 'footL' => 'left foot', 'footR' => 'right foot',
                        ][$c->effector] ?? $c->effector;
                        $notes[] = new Note(
                            'contact.reach',
                            $item,
                            $frame,
                            sprintf('The %s of %s misses its contact by %.0f cm.', $part, $who, $miss * 100),
                            'Bring the performer nearer, or let the contact go.',
                        );
                        break;
                    }
                }
            }
        }

        return $notes;
    }
}
