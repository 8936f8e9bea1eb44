<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile\Passes;

use CrispReel\Core\Compile\Draft;
use CrispReel\Core\Compile\Pass;
use CrispReel\Core\Document\Finding;
use CrispReel\Core\Document\Moods;
use CrispReel\Core\Document\Severity;
use CrispReel\Core\Math\V3;

/** A note of lamps that stay dark: the drawing lights those nearest to the camera, so many at a time. */
final class Lamps implements Pass
{
    /** Metres within which lamps are seen together. */
    private const NEAR = 8.0;

    public function settle(Draft $draft): void
    {
        $lamps = self::lamps($draft);
        foreach ($lamps as [$item, $at]) {
            $near = array_filter($lamps, static fn (array $l): bool => V3::distance($l[1], $at) <= self::NEAR);
            if (count($near) > Moods::LAMPS) {
                $names = array_unique(array_map(static fn (array $l): string => $draft->document->items[$l[0]]->name, $near));
                $draft->note(new Finding(
                    'light.lamps', Severity::Look,
                    sprintf(
                        '%d lamps stand close together ("%s"); %d at a time give light.',
                        count($near),
                        implode('", "', $names),
                        Moods::LAMPS,
                    ),
                    remedy: 'Those nearest to the camera do; take out lamps that are not seen.', about: [$item],
                ));

                return;
            }
        }
    }

    /** @return list<array{string, array{float, float, float}}> item and place in the scene of each lamp */
    private static function lamps(Draft $draft): array
    {
        $out = [];
        foreach ($draft->document->items as $item) {
            $extras = $draft->assets->digest($draft->document->assets[$item->asset])['extras'] ?? [];

            /** @var list<array{at?: array{float, float, float}}> $lamps */
            $lamps = is_array($extras) && is_array($extras['lamps'] ?? null) ? $extras['lamps'] : [];
            foreach ($lamps as $lamp) {
                $out[] = [$item->id, $draft->places()[$item->id]->point($lamp['at'] ?? [0.0, 0.0, 0.0])];
            }
        }

        return $out;
    }
}
