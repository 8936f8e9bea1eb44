<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile;

use CrispReel\Core\Document\Contact;
use CrispReel\Core\Document\Item;
use CrispReel\Core\Math\Placement;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Motion\Model\MotionRecipe;
use CrispReel\Core\Rig\Figure;

/** Somebody on the arms of another: goes along with the hips of who carries, a hand below the shoulders, the other behind the knees. */
final class Bearing
{
    /** Hand, role of the one who is carried, and metres behind it for a person of 1.70 m. */
    private const HANDS = [['handL', 'chest', 0.13], ['handR', 'lowerLegR', 0.07]];

    /** Frames in which the arms take up, and let down. */
    private const EASE = 12;

    /** Whether a motion is one of who is carried. */
    public static function isBorne(?MotionRecipe $recipe): bool
    {
        return $recipe !== null && $recipe->text('score') === 'beCarried';
    }

    /** Rows made at the hips of the one who carries, taken along with them. */
    public static function riding(Item $item, Figure $figure, Item $bearer, Lane $lane): Riding
    {
        $there = Placement::standing($bearer->position, $bearer->headingDeg, $bearer->scale);
        $its = $lane->figure;
        $at = static function (float $frame) use ($lane, $its, $there): Placement {
            $row = $lane->row($frame);

            return $there->of(new Placement([$row[0], $row[1], $row[2]], Q4::aroundY($its->standing($row, $its->hips)[2])));
        };

        return Riding::along($item, $figure, $at, 'borne '.$lane->fingerprint(0.0, (float) PHP_INT_MAX));
    }

    /** @return list<Contact> */
    public static function hands(Draft $draft, MotionTables $motions): array
    {
        $out = [];
        foreach ($draft->lanes() as $item => $lane) {
            foreach ($lane->segments as $s) {
                $bears = $s->riding === null || ! self::isBorne($motions->recipeOf($s->from)) ? null
                    : $draft->document->beat($s->from->play->with);
                if ($bears === null) {
                    continue;
                }
                foreach (self::HANDS as [$hand, $role, $behind]) {
                    $joint = $lane->figure->skeleton->roles[$role] ?? null;
                    if ($joint !== null) {
                        $out[] = new Contact(
                            "borne {$hand} {$s->beat}", $bears->item, $hand, (string) $item, $lane->figure->skeleton->names[$joint],
                            [0.0, 0.0, -$behind * $lane->figure->body()->scale], (int) $s->start + self::EASE,
                            $s->from->play->keepLooping ? null : (int) ceil($s->end), self::EASE, self::EASE, 'keep',
                        );
                    }
                }
            }
        }

        return $out;
    }
}
