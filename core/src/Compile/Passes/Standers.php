<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile\Passes;

use CrispReel\Core\Compile\Clearance;
use CrispReel\Core\Compile\Draft;
use CrispReel\Core\Compile\Lane;
use CrispReel\Core\Compile\Memory;
use CrispReel\Core\Compile\Pass;
use CrispReel\Core\Compile\Poses;
use CrispReel\Core\Document\Command;
use CrispReel\Core\Document\Finding;
use CrispReel\Core\Document\Item;
use CrispReel\Core\Document\Mend;
use CrispReel\Core\Document\Severity;
use CrispReel\Core\Geometry\Solids;

/** Notes of people who stand in solid things, at rest and where their beats end. */
final class Standers implements Pass
{
    /** Metres around who stands there in which things are looked at. */
    private const AROUND = 4.5;

    /** Share of the standing height of the hips below which somebody sits, kneels or lies: on things, and close to them. */
    private const STANDS = 0.75;

    public function settle(Draft $draft): void
    {
        $scene = $draft->poses();
        foreach ($draft->lanes() as $id => $lane) {
            $item = $draft->document->items[$id];
            if (! $lane->figure->isHuman() || ($scene->carriesOf($id)) !== []) {
                continue;
            }
            $frames = self::frames($lane, $draft->frames());
            $stands = $draft->memory->of(
                Memory::key('stands', [$frames, $scene->grounds($id, 0, $draft->frames() + 1)]),
                static fn (): array => self::stands($scene, $item, $lane, $frames),
            );
            $draft->note(...self::first($draft, $item, $lane, $stands));
        }
    }

    /**
     * What is said of the first place where somebody stands in something.
     *
     * @param  array<int, array{float, float, float}>  $stands  places of the feet by frame
     * @return list<Finding>
     */
    private static function first(Draft $draft, Item $item, Lane $lane, array $stands): array
    {
        $touched = self::touched($draft->poses(), $item->id);
        foreach ($stands as $frame => $feet) {
            $region = [$feet[0] - self::AROUND, $feet[2] - self::AROUND, $feet[0] + self::AROUND, $feet[2] + self::AROUND];
            $around = [$draft->around->names($region), $draft->around->signature($region)];
            $found = $draft->memory->of(
                Memory::key('stander', [$item->id, $item->name, $item->position, $frame, $feet, $touched, $around]),
                static fn (): array => [self::look($draft->around->solids($region, $touched), $item, $lane, $frame, $feet)],
            )[0];
            if ($found !== null) {
                return [$found];
            }
        }

        return [];
    }

    /** @return list<int> frames at which it is at rest: before all beats, and at the end of each */
    private static function frames(Lane $lane, int $frames): array
    {
        $out = [0];
        foreach ($lane->segments as $s) {
            $out[] = max(0, min($frames, (int) floor($s->end)) - 1);
        }

        return array_values(array_unique($out));
    }

    /**
     * @param  list<int>  $frames
     * @return array<int, array{float, float, float}> where the feet are, by the frames at which somebody stands upright
     */
    private static function stands(Poses $scene, Item $item, Lane $lane, array $frames): array
    {
        $out = [];
        $figure = $lane->figure;
        $roles = $figure->skeleton->roles;
        $upright = ($figure->rest('hips')[1] ?? 1.0) - ($figure->rest('footL')[1] ?? 0.0);
        $ankle = ($figure->rest('footL')[1] ?? 0.08) * $item->scale;
        foreach ($frames as $frame) {
            $moment = $scene->at($frame);
            $hips = $moment->joint($item->id, $roles['hips'])->position;
            $foot = min($moment->joint($item->id, $roles['footL'])->position[1], $moment->joint($item->id, $roles['footR'])->position[1]);
            if (self::STANDS * $upright * $item->scale < $hips[1] - $foot) {
                $out[$frame] = [$hips[0], $foot - $ankle, $hips[2]];
            }
        }

        return $out;
    }

    /** @return list<string> what somebody holds on to or stands by: it may be close */
    private static function touched(Poses $scene, string $id): array
    {
        $out = [];
        foreach ($scene->holds[$id] ?? [] as $h) {
            $out[] = $h->contact->effector === 'look' ? null : $h->contact->target;
        }

        return array_values(array_unique(array_filter($out, is_string(...))));
    }

    /** @param  array{float, float, float}  $feet */
    private static function look(Solids $solids, Item $item, Lane $lane, int $frame, array $feet): ?Finding
    {
        $height = $lane->figure->height() * $item->scale;
        $thing = Clearance::within($solids, $feet, $height);
        if ($thing === null) {
            return null;
        }
        $clear = $frame === 0 ? Clearance::near($solids, $feet, $height) : null;
        $to = $clear === null ? null : array_map(
            static fn (float $at, float $from, float $now): float => round($at + $now - $from, 3),
            $clear, $feet, $item->position,
        );

        return new Finding(
            'body.inside', Severity::Harms, sprintf('%s stands in "%s".', $item->name, $thing),
            remedy: $frame === 0 ? 'Move one of the two.' : 'Let the way there end earlier, or move the thing.',
            about: [$item->id], frames: [$frame, $frame],
            mends: $to === null ? [] : [new Mend("Move {$item->name} aside", [Command::of('item.place', item: $item->id, position: $to)])],
        );
    }
}
