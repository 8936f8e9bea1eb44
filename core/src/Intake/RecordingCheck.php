<?php

declare(strict_types=1);

namespace CrispReel\Core\Intake;

use CrispReel\Core\Document\Finding;
use CrispReel\Core\Document\Severity;
use CrispReel\Core\Motion\RecordedFeet;
use CrispReel\Core\Rig\Clip;
use CrispReel\Core\Rig\HumanRoles;
use CrispReel\Core\Rig\Recording;
use CrispReel\Core\Rig\Skeleton;
use CrispReel\Core\Rig\UnableToMatch;

/** What is done to a recording without being asked, each part told, and each can be left. */
final class RecordingCheck
{
    /** Codes of what can be left. */
    public const CODES = ['rest', 'first', 'ground'];

    /** A ground nearer to zero than this, metres, is no finding: a file does not tell how thick the soles are. */
    private const EVEN = 0.07;

    /** Frames a second at which feet are looked at. */
    private const RATE = 60.0;

    /**
     * @param  array<string, string>  $rolesByHand
     * @param  list<string>  $leave  what is left as it is
     * @return list<Finding>
     */
    public static function of(Clip $clip, Skeleton $skeleton, array $rolesByHand, array $leave): array
    {
        try {
            $roles = HumanRoles::chosen($skeleton, $rolesByHand);
        } catch (UnableToMatch) {
            return [];
        }
        if (! isset($roles['hips'], $roles['upperLegL'], $roles['upperLegR'], $roles['footL'], $roles['footR']) || $clip->seconds <= 0.0) {
            return [];
        }
        $r = Recording::of($clip, $skeleton, $roles, $roles['hips']);
        $metre = RecordedFeet::LEG / max(1e-9, $r->leg());
        $count = max(2, $clip->samples(self::RATE));
        $ground = RecordedFeet::of($r, ($count - 1) / $clip->seconds, $count)->ground;
        $out = [];
        if ($r->restAt !== null) {
            $out[] = self::done(
                'rest', sprintf('Its rest pose is no stand; how it stands at second %.1f is taken for it.', $r->restAt),
                'Limbs point as they do in the file either way; feet, hands and head are judged by it.',
                'Take a moment of it as rest',
                $leave,
            );
        }
        if ($r->begins > 0.0) {
            $out[] = self::done(
                'first', 'Its first frame is another pose, which the recording was set up with, and no part of the motion.',
                'It would flash by at the start.', 'Leave the first frame out', $leave,
            );
        }
        if ($ground !== null && abs($ground * $metre) > self::EVEN) {
            $finding = self::done(
                'ground', sprintf(
                    'The ground it was recorded on is %.2f m %s zero.', abs($ground * $metre), $ground < 0 ? 'below' : 'above',
                ),
                'Feet would '.($ground < 0 ? 'sink into' : 'float over').' the ground.', 'Put its ground on the ground', $leave,
            );
            $out[] = RecordedFeet::lies($ground * $metre) || in_array('+ground', $leave, true) ? $finding : Finding::ofFile(
                'ground', Severity::Look, sprintf('Its feet are never nearer to zero than %.2f m.', $ground * $metre),
                'It may stand on something; if not, feet float over the ground.', [], 'Put its feet on the ground',
            );
        }

        return $out;
    }

    /** @param  list<string>  $leave */
    private static function done(string $code, string $sentence, string $effect, string $label, array $leave): Finding
    {
        $finding = Finding::ofFile($code, Severity::Look, $sentence, $effect, [], $label, safe: true, unasked: true);

        return in_array($code, $leave, true) ? $finding : $finding->mended();
    }
}
