<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile\Passes;

use CrispReel\Core\Compile\Draft;
use CrispReel\Core\Compile\Lane;
use CrispReel\Core\Compile\LaneCompiler;
use CrispReel\Core\Compile\Memory;
use CrispReel\Core\Compile\Pass;
use CrispReel\Core\Document\Beat;
use CrispReel\Core\Document\Finding;
use CrispReel\Core\Document\Item;
use CrispReel\Core\Document\Link;

/** What each performer does, beat after beat; a lane whose grounds are the same as before is taken as it was. */
final class Lanes implements Pass
{
    public function settle(Draft $draft): void
    {
        $compiler = new LaneCompiler(
            $draft->document, $draft->assets, $draft->figure(...), $draft->around, $draft->ownPlaces(), $draft->memory,
        );
        $around = $draft->around->everything();
        $lanes = [];
        $tied = self::tied($draft->document->beats);
        foreach ($draft->document->items as $item) {
            $figure = $draft->figure($item);
            if ($figure === null) {
                continue;
            }
            [$lanes[$item->id], $notes] = $draft->memory->of(
                Memory::key('lane', [$this->grounds($draft, $item, $tied), $around]),
                /** @return array{Lane, list<Finding>} */
                static fn (): array => [$compiler->lane($item, $figure), $compiler->notesOf($item)],
            );
            $draft->note(...$notes);
        }
        $draft->putLanes($lanes);
    }

    /**
     * @param  array<Beat>  $beats
     * @return array<string, true> beats that stand to another's, and those that another's stand to
     */
    private static function tied(array $beats): array
    {
        $out = [];
        foreach ($beats as $b) {
            if ($b->play->with !== '') {
                $out[$b->id] = $out[$b->play->with] = true;
            }
        }

        return $out;
    }

    /**
     * @param  array<string, true>  $tied
     * @return array<mixed> what a lane is made from, besides what stands around
     */
    private function grounds(Draft $draft, Item $item, array $tied): array
    {
        $d = $draft->document;
        $beats = array_filter($d->beats, static fn (Beat $b): bool => $b->item === $item->id);
        $assets = [$item->asset, ...array_map(static fn (Beat $b): string => $b->motion, array_values($beats))];
        $parts = [
            array_diff_key($item->toArray(), ['tape' => 0, 'surfaces' => 0, 'cloth' => 0, 'voice' => 0]), [$d->rate->num, $d->rate->den],
            array_map(static fn (Beat $b): array => $b->toArray(), array_values($beats)),
            array_map(static fn (string $a): array => [$a, $d->assets[$a]->name, $d->assets[$a]->digest, $d->assets[$a]->blob], $assets),
            array_filter($d->links, static fn (Link $l): bool => $l->child === $item->id) !== [],
        ];
        foreach (array_unique(array_map(static fn (Beat $b): string => $b->play->on, array_values($beats))) as $thing) {
            $parts[] = isset($d->items[$thing]) ? $draft->ownPlaces()->grounds($d->items[$thing]) : null;
        }
        if (array_intersect_key(array_column($beats, null, 'id'), $tied) !== []) {
            // Who stands to another goes by all that the other does, and so on.
            $parts[] = array_map(static fn (Beat $b): array => $b->toArray(), $d->beats);
            $parts[] = array_map(static fn (Item $i): array => [$i->asset, $i->position, $i->headingDeg, $i->scale], $d->items);
            $parts[] = array_map(static fn ($a): array => [$a->digest, $a->blob], $d->assets);
        }

        return $parts;
    }
}
