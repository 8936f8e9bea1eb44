<?php

declare(strict_types=1);

namespace CrispReel\Core\Staging;

use CrispReel\Core\Document\Command;
use CrispReel\Core\Document\Document;
use CrispReel\Core\Document\Link;
use CrispReel\Core\Motion\Scores\Pairs;

/** What is held in a hand flies to whom it is thrown to. */
final class Thrown
{
    /**
     * @param  string  $by  item of the performer who throws
     * @param  string  $to  and of the one who catches
     * @param  int|null  $start  frame at which their motions begin; null: nothing is thrown
     * @return list<Command> none: nothing is in the hand
     */
    public static function commands(Document $scene, string $by, string $to, ?int $start): array
    {
        if ($start === null) {
            return [];
        }
        [$leaves, $comes] = array_map(fn (float $s): int => $start + (int) round($s * $scene->rate->perSecond()), Pairs::THROWN);
        $held = array_values(array_filter(
            $scene->links,
            static fn (Link $l): bool => $l->parent === $by && in_array($l->mount, ['handR', 'handL'], true) && $l->from < $leaves
                && ($l->to === null || $l->to > $leaves),
        ));
        // The hand that throws is the right one: what is in it goes before what is in the left.
        usort($held, static fn (Link $a, Link $b): int => [$b->mount, $b->from] <=> [$a->mount, $a->from]);
        if ($held === []) {
            return [];
        }

        return [
            Command::of('link.set', link: $held[0]->id, to: $leaves, release: 'fall'),
            Command::of('link.add', child: $held[0]->child, parent: $to, mount: 'handR', from: $comes, keep: 'grip'),
        ];
    }
}
