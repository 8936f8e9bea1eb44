<?php

declare(strict_types=1);

namespace CrispReel\Core\Meeting;

use CrispReel\Core\Math\V3;

/**
 * How far two drawn bodies are apart along the line between them, trunk from trunk and head from head; less than nothing is in each
 * other.
 *
 * @phpstan-type Vec array{float, float, float}
 */
final class Bodies
{
    private const TRUNK = ['hips', 'spine', 'chest', 'upperChest', 'upperLegL', 'upperLegR'];

    private const SHINS = ['lowerLegL', 'lowerLegR', 'footL', 'footR'];

    private const HEAD = ['head', 'neck'];

    /** What a head can meet. */
    private const ABOVE = ['head', 'neck', 'upperChest', 'upperArmL', 'upperArmR'];

    /**
     * Metres between the trunks when the second is moved by a step.
     *
     * @param  Vec  $by
     */
    public static function trunks(Person $a, Person $b, int $f, array $by = [0.0, 0.0, 0.0]): float
    {
        return self::gap($a, $b, $f, self::TRUNK, self::TRUNK, 'chest', $by);
    }

    /** Metres between the first's head and the second's head and shoulders. */
    public static function heads(Person $a, Person $b, int $f): float
    {
        return self::gap($a, $b, $f, self::HEAD, self::ABOVE, 'head');
    }

    /** The same of trunks, heads and legs, whichever is nearest. */
    public static function all(Person $a, Person $b, int $f): float
    {
        return min(
            self::trunks($a, $b, $f),
            self::heads($a, $b, $f),
            self::gap($a, $b, $f, self::SHINS, self::SHINS, 'hips') + 0.03,
        );
    }

    /**
     * @param  list<string>  $own
     * @param  list<string>  $theirs
     * @param  Vec  $by
     */
    private static function gap(Person $a, Person $b, int $f, array $own, array $theirs, string $middle, array $by = [0.0, 0.0, 0.0]): float
    {
        $centre = V3::mix($a->at($middle, $f), $b->at($middle, $f), 0.5);
        $apart = V3::sub($b->at('hips', $f), $a->at('hips', $f));
        // Along the axis of the first, or as the two are turned now.
        $line = hypot($apart[0], $apart[2]) < 1e-6 ? [0.0, 0.0, -1.0] : V3::unit([-$apart[0], 0.0, -$apart[2]]);
        $line = abs($line[0]) < 0.5 ? [0.0, 0.0, $line[2] < 0.0 ? -1.0 : 1.0] : $line;
        $relief = $b->relief($theirs, $f, $centre, $line, 0.48, 2.0);
        $points = array_map(static fn (array $p): array => V3::sub($p, $by), $a->drawn($a->skin->vertices($own), $f));

        return $relief->least($points) ?? 1.0;
    }
}
