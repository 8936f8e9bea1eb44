<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile;

use CrispReel\Core\Document\Contact;

/** Arms of one who carries somebody: a hand below the shoulders, the other behind the knees. */
final class Bearing
{
    /** Hand, role of the one who is carried, and metres behind it for a person of 1.70 m. */
    private const HANDS = [['handL', 'chest', 0.13], ['handR', 'lowerLegR', 0.07]];

    /** Frames in which the arms take up, and let down. */
    private const EASE = 12;

    /** @return list<Contact> */
    public static function hands(Draft $draft): array
    {
        $out = [];
        foreach ($draft->lanes() as $item => $lane) {
            foreach ($lane->segments as $s) {
                $recipe = $draft->assets->digest($draft->document->assets[$s->from->motion])['recipe'] ?? null;
                $settings = is_array($recipe) && is_array($recipe['settings'] ?? null) ? $recipe['settings'] : [];
                $by = $s->riding === null || ($settings['score'] ?? '') !== 'beCarried' ? null : self::bearer($draft, $s->from->play->with);
                if ($by === null) {
                    continue;
                }
                $size = $lane->figure->body()->scale;
                foreach (self::HANDS as [$hand, $role, $behind]) {
                    $joint = $lane->figure->skeleton->roles[$role] ?? null;
                    if ($joint !== null) {
                        $out[] = new Contact(
                            "borne {$hand} {$s->beat}", $by, $hand, (string) $item, $lane->figure->skeleton->names[$joint],
                            [0.0, 0.0, -$behind * $size], (int) $s->start + self::EASE,
                            $s->from->play->keepLooping ? null : (int) ceil($s->end), self::EASE, self::EASE, 'keep',
                        );
                    }
                }
            }
        }

        return $out;
    }

    private static function bearer(Draft $draft, string $with): ?string
    {
        foreach ($draft->document->beats as $b) {
            if ($b->id === $with) {
                return $b->item;
            }
        }

        return null;
    }
}
