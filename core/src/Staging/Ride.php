<?php

declare(strict_types=1);

namespace CrispReel\Core\Staging;

use CrispReel\Core\Document\AssetSource;
use CrispReel\Core\Document\Command;
use CrispReel\Core\Document\Document;
use CrispReel\Core\Math\Placement;

/** Somebody on a thing to ride on: in its seat, hands and feet where the thing says. */
final class Ride
{
    /**
     * @param  string  $who  item of a performer
     * @param  string  $on  item with places for a rider in its facts (`vehicle.rider`)
     * @param  int|null  $to  null: to the end
     * @return list<Command>
     *
     * @throws UnableToStage
     */
    public static function of(Document $scene, AssetSource $assets, string $who, string $on, int $from, ?int $to): array
    {
        [$person, $thing] = [$scene->items[$who], $scene->items[$on]];
        if ($person->kind !== 'performer') {
            throw UnableToStage::because('ride.not-performer', "\"{$person->name}\" is not a performer.", 'Choose a performer.');
        }
        $digest = $assets->digest($scene->assets[$thing->asset]);
        $rider = self::rider($digest);
        if ($rider === []) {
            throw UnableToStage::because(
                'ride.no-seat', "\"{$thing->name}\" has no places for a rider.",
                'Choose a thing to ride on, or carry the performer and set contacts.',
            );
        }
        $place = Placement::standing($thing->position, $thing->headingDeg, $thing->scale);
        [$x, $z] = self::seat($digest);
        $turned = is_numeric($rider['headingDeg'] ?? null) ? (float) $rider['headingDeg'] : 0.0;
        $out = [
            Command::of('item.place', item: $who, position: $place->point([$x, 0.0, $z]), headingDeg: $thing->headingDeg + $turned),
            Command::of('link.add', child: $who, parent: $on, from: $from, to: $to, keep: 'place'),
        ];
        foreach ($rider as $effector => $where) {
            if (is_array($where)) {
                $out[] = Command::of(
                    'contact.add', item: $who, effector: $effector, target: $on, mount: $where['mount'] ?? '',
                    offset: $where['offset'] ?? [0.0, 0.0, 0.0], from: $from, to: $to,
                    turn: str_starts_with((string) $effector, 'hand') ? 'follow' : 'keep',
                );
            }
        }

        return $out;
    }

    /**
     * @param  array<string, mixed>  $digest
     * @return array<array-key, mixed> places by effector, and the turn of the rider
     */
    private static function rider(array $digest): array
    {
        $extras = is_array($digest['extras'] ?? null) ? $digest['extras'] : [];
        $vehicle = is_array($extras['vehicle'] ?? null) ? $extras['vehicle'] : [];

        return is_array($vehicle['rider'] ?? null) ? $vehicle['rider'] : [];
    }

    /**
     * @param  array<string, mixed>  $digest
     * @return array{float, float} x and z in the thing's space
     */
    private static function seat(array $digest): array
    {
        $mounts = is_array($digest['mounts'] ?? null) ? $digest['mounts'] : [];
        $at = is_array($mounts['seat'] ?? null) && is_array($mounts['seat']['position'] ?? null) ? $mounts['seat']['position'] : [];

        return [is_numeric($at[0] ?? null) ? (float) $at[0] : 0.0, is_numeric($at[2] ?? null) ? (float) $at[2] : 0.0];
    }
}
