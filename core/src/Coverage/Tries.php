<?php

declare(strict_types=1);

namespace CrispReel\Core\Coverage;

use CrispReel\Core\Document\Framing;
use CrispReel\Core\Document\Input;

/** What else a framing may be where something stands in its way: other sides, heights and lenses, in the order in which one would. */
final class Tries
{
    /** What is tried, in this order, where something is in the way: degrees aside, another height, another lens. */
    private const ARCS = [0, 8, -8, 16, -16, 24, -24, 32, -32, 42, -42];

    private const OTHERS = [
        ['high', null, [0, 12, -12, 24, -24]], [null, 35.0, [0, 16, -16, 32, -32]], [null, 28.0, [0, 16, -16, 32, -32]],
        ['high', 28.0, [0, 16, -16, 32, -32]], ['high', 24.0, [0, -8, 16, -16, 36]],
    ];

    /** One of two alone: degrees more off the line, and shares of the look room, until the other is out of the picture. */
    private const ALONE = [[0, 6, 12, 18, 26], [1.0, 0.0, -0.45, -0.8]];

    /** @return iterable<Framing> */
    public static function of(Framing $f): iterable
    {
        if ($f->partner !== null && $f->kind === 'single') {
            foreach (self::ALONE[1] as $room) {
                foreach (self::ALONE[0] as $arc) {
                    yield self::with($f, ['sideDeg' => $f->sideDeg + ($f->sideDeg < 0 ? -$arc : $arc), 'room' => $room]);
                }
            }

            return;
        }
        foreach (self::ARCS as $arc) {
            yield self::with($f, ['sideDeg' => self::degrees($f->sideDeg + $arc)]);
        }
        foreach (self::OTHERS as [$height, $lens, $arcs]) {
            foreach ($arcs as $arc) {
                yield self::with($f, [
                    'sideDeg' => self::degrees($f->sideDeg + $arc), 'height' => $height ?? $f->height, 'focalMm' => $lens ?? $f->focalMm,
                ]);
            }
        }
    }

    /** @param  array<string, mixed>  $changes */
    public static function with(Framing $f, array $changes): Framing
    {
        return Framing::from(new Input($changes + $f->toArray()));
    }

    public static function changed(Framing $asked, Framing $got, string $blocked): string
    {
        $way = match (true) {
            $got->kind === 'single' && $got->partner !== null => '',
            $asked->focalMm !== $got->focalMm && $asked->kind !== 'overShoulder' => sprintf('with %d mm', (int) $got->focalMm),
            $asked->height !== $got->height => 'from higher up',
            $asked->sideDeg !== $got->sideDeg => sprintf('%d° aside', (int) round(abs(self::degrees($got->sideDeg - $asked->sideDeg)))),
            default => '',
        };

        return $way === '' || $blocked === '' ? '' : ucfirst("{$way}: {$blocked} is in the way.");
    }

    private static function degrees(float $d): float
    {
        return $d > 180.0 ? $d - 360.0 : ($d < -180.0 ? $d + 360.0 : $d);
    }
}
