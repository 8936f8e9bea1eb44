<?php

declare(strict_types=1);

namespace CrispReel\Core\Motion\Scores;

use CrispReel\Core\Motion\Model\MotionRecipe;

/**
 * How a body is held where a motion begins and ends, and the motions that lead from one way to another: what is put in between two that
 * do not fit.
 */
final class Stances
{
    /** Motions that begin and end so; all others of the house stand, unless they are named below. */
    private const HELD = [
        'sit' => ['sitIdle', 'sitTalk', 'sitCrossed', 'sitForward', 'sitSlumped', 'sleepSitting', 'wakeSitting', 'write'],
        'lie' => ['lieIdle'], 'crouch' => ['crouchIdle', 'hide'],
    ];

    /** Motions that begin in one and end in another. */
    private const LEAD = [
        'sitDown' => ['stand', 'sit'], 'standUp' => ['sit', 'stand'], 'kneel' => ['stand', 'kneel'], 'kneelUp' => ['kneel', 'stand'],
        'crouch' => ['stand', 'crouch'], 'crouchUp' => ['crouch', 'stand'], 'lieDown' => ['stand', 'lie'], 'getUp' => ['lie', 'stand'],
        'fall' => ['stand', 'lie'], 'faint' => ['stand', 'lie'], 'dieBack' => ['stand', 'lie'], 'dieKneeling' => ['stand', ''],
        'dieAside' => ['stand', 'lie'], 'slip' => ['stand', ''], 'helpUpB' => ['', 'stand'],
    ];

    /** Motions of no stance: on things, on all fours, in water. */
    private const NONE = ['drive', 'ride', 'row', 'crawl', 'crawlWounded', 'swim', 'climb', 'lean', 'beCarried'];

    /** Motions of arms, head and trunk, which somebody who sits does seated. */
    private const SEATED = [
        'point', 'beckon', 'shrug', 'shakeHead', 'listen', 'think', 'thinkHard', 'scratchHead', 'lookAtWatch', 'callOut', 'whisper', 'clap',
        'laugh', 'cry', 'talkAngry', 'talkSad', 'drink', 'eat', 'read', 'yawn', 'stretch', 'cough', 'sneeze', 'warmHands', 'wipeBrow',
        'phoneTalk', 'phoneListen', 'phoneType', 'takePicture', 'salute', 'shrugOff', 'coverEars', 'coverEyes', 'lookAround', 'idleCold',
        'idleTired', 'idleImpatient', 'shy',
    ];

    /** @return array{string, string} where it begins and ends; empty: in none, or nobody knows */
    public static function ends(MotionRecipe $recipe): array
    {
        $score = $recipe->model === 'act' ? $recipe->text('score') : '';
        foreach (self::HELD as $stance => $scores) {
            if (in_array($score, $scores, true)) {
                return [$stance, $stance];
            }
        }
        if ($recipe->model === 'mount') {
            return ['on' => ['stand', ''], 'off' => ['', 'stand']][$recipe->text('way')] ?? ['', ''];
        }
        if (isset(self::LEAD[$score])) {
            return self::LEAD[$score];
        }
        if ($recipe->number('strength', 1.0) >= 1.5) {
            return ['stand', 'lie'];
        }

        return in_array($score, self::NONE, true) ? ['', ''] : ['stand', 'stand'];
    }

    /** Whether somebody who sits can do it seated. */
    public static function seated(MotionRecipe $recipe): bool
    {
        return in_array($recipe->model, ['talk', 'wave', 'idle'], true) || in_array($recipe->text('score'), self::SEATED, true);
    }

    /** @return list<string> scores that lead from one to another */
    public static function between(string $from, string $to): array
    {
        if ($from === $to || $from === '' || $to === '') {
            return [];
        }
        $lead = static function (string $a, string $b): array {
            foreach (self::LEAD as $score => $ends) {
                if ($ends === [$a, $b]) {
                    return [$score];
                }
            }

            return [];
        };

        return $from === 'stand' || $to === 'stand' ? $lead($from, $to) : [...$lead($from, 'stand'), ...$lead('stand', $to)];
    }
}
