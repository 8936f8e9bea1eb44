<?php

declare(strict_types=1);

namespace CrispReel\Core\Library;

/**
 * What motions ask of a body, and what is lacking without it.
 *
 * @phpstan-import-type Known from PartIndex
 * @phpstan-import-type Found from StoryParts
 */
final class CastLimits
{
    /** Tags of motions that ask something of a body, and what is lacking without it. */
    private const ASKS = [
        'mouths' => [['talk', 'speak', 'call', 'shout', 'whisper', 'argue', 'quarrel'], 'has no shapes of the mouth: "%s" will be mute'],
        'shapes' => [['cry', 'laugh', 'weep'], 'has no face that moves: "%s" will show in the body alone'],
        'fingers' => [
            ['point', 'write', 'drink', 'take', 'throw', 'catch', 'carry', 'pull', 'row', 'give', 'hand', 'read', 'wave', 'clap'],
            'has no fingers: the hands stay as they are in "%s"',
        ],
    ];

    /**
     * @param  list<Found>  $found
     * @param  list<Known>  $performers
     * @param  list<Known>  $motions
     * @return list<string>
     */
    public static function of(array $found, array $performers, array $motions): array
    {
        $bodies = array_column($performers, 'facts', 'id');
        $out = [];
        foreach ($found as $who) {
            if ($who['kind'] !== 'performer' || ! isset($bodies[$who['id']])) {
                continue;
            }
            $has = static function (string $fact) use ($bodies, $who): bool {
                $v = $bodies[$who['id']][$fact] ?? 0;

                return $v === true || (is_numeric($v) && $v > 0);
            };
            foreach ($motions as $m) {
                if (! $has('roles')) {
                    $out[] = sprintf('%s has not the joints of a person: "%s" cannot be played.', $who['name'], $m['name']);

                    continue;
                }
                foreach (self::ASKS as $fact => [$tags, $lacks]) {
                    if (! $has($fact) && array_intersect($tags, array_map(mb_strtolower(...), $m['tags'])) !== []) {
                        $out[] = $who['name'].' '.sprintf($lacks, $m['name']).'.';
                    }
                }
            }
        }

        return array_values(array_unique($out));
    }
}
