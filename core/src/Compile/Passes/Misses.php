<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile\Passes;

use CrispReel\Core\Compile\Draft;
use CrispReel\Core\Compile\Memory;
use CrispReel\Core\Compile\Pass;
use CrispReel\Core\Compile\Poses;
use CrispReel\Core\Compile\TurningRound;
use CrispReel\Core\Document\AssetSource;
use CrispReel\Core\Document\Command;
use CrispReel\Core\Document\Contact;
use CrispReel\Core\Document\Finding;
use CrispReel\Core\Document\Measured;
use CrispReel\Core\Document\Mend;
use CrispReel\Core\Document\Severity;

/** Notes of contacts that are not reached. */
final class Misses implements Pass
{
    /** Metres that a contact may miss before a note says so. */
    private const MISS = 0.01;

    /** Degrees that eyes may be off what they look at. */
    private const ASIDE = 8.0;

    public function settle(Draft $draft): void
    {
        $scene = $draft->poses();
        foreach (array_keys(array_filter($scene->holds)) as $item) {
            $key = Memory::key('misses', [
                $scene->document->items[$item]->name, $draft->frames(), $scene->grounds((string) $item, 0, $draft->frames() + 1),
            ]);
            $draft->note(...$draft->memory->of(
                $key, static fn (): array => self::outOfReach($scene, $draft->assets, (string) $item, $draft->frames()),
            ));
        }
    }

    /** @return list<Finding> contacts that are not reached at a frame looked at: first, middle and last */
    private static function outOfReach(Poses $scene, AssetSource $assets, string $item, int $frames): array
    {
        $notes = [];
        foreach ($scene->holds[$item] as $h) {
            $c = $h->contact;
            if ($h->by < 1.0) {
                continue;
            }
            $last = min($frames, $c->to ?? $frames) - 1;
            foreach (array_unique([$c->from, intdiv($c->from + $last, 2), max($c->from, $last)]) as $frame) {
                $moment = $scene->at($frame);
                $moment->row($item);
                $miss = $moment->missing[$c->id] ?? 0.0;
                if ($miss > ($c->effector === 'look' ? self::ASIDE : self::MISS)) {
                    $notes[] = $c->effector === 'look'
                        ? self::unseen($scene, $item, $c, $frame, $miss, (new TurningRound($scene, $assets, $item))->commands($c, $frames))
                        : self::note($scene, $item, $c, $frame, $miss);
                    break;
                }
            }
        }

        return $notes;
    }

    /** @param  list<Command>  $turns  with which the feet go along */
    private static function unseen(Poses $scene, string $item, Contact $contact, int $frame, float $degrees, array $turns): Finding
    {
        $name = $scene->document->items[$item]->name;
        $what = $contact->target === null ? 'that place' : $scene->document->items[$contact->target]->name;

        return new Finding(
            'contact.look', Severity::Look,
            sprintf('%s cannot turn far enough to see %s: %.0f degrees are missing.', $name, $what, $degrees),
            effect: 'Head and eyes turn as far as they go.', remedy: 'Turn the performer, or end the look before.',
            about: [$item, $contact->id], frames: [$frame, $frame], figures: [new Measured('missing', $degrees, 'deg', self::ASIDE)],
            mends: [...$turns === [] ? [] : [new Mend('Turn round for it', $turns)], new Mend('End the look here', [
                $frame > $contact->from
                    ? Command::of('contact.set', contact: $contact->id, to: $frame)
                    : Command::of('contact.remove', contact: $contact->id),
            ])],
        );
    }

    private static function note(Poses $scene, string $item, Contact $contact, int $frame, float $miss): Finding
    {
        $part = [
            'handL' => 'left hand', 'handR' => 'right hand', 'footL' => 'left foot', 'footR' => 'right foot',
        ][$contact->effector] ?? $contact->effector;

        return new Finding(
            'contact.reach', Severity::Harms,
            sprintf('The %s of %s misses its contact by %.0f cm.', $part, $scene->document->items[$item]->name, $miss * 100),
            remedy: 'Bring the performer nearer, or let the contact go.', about: [$item, $contact->id], frames: [$frame, $frame],
            figures: [new Measured('misses', $miss * 100, 'cm', self::MISS * 100)],
            mends: [new Mend('Let it go', [Command::of('contact.remove', contact: $contact->id)])],
        );
    }
}
