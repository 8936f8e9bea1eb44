<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile;

use CrispReel\Core\Document\AssetRef;
use CrispReel\Core\Document\AssetSource;
use CrispReel\Core\Motion\Model\ScoreBook;

/** What somebody does in a motion, as far as others care: by the model that made it, or by its name where it came in from elsewhere. */
final class Doing
{
    /** Words in the name of a motion that came in from elsewhere, by which it speaks. */
    private const SPEAKS = '/\b(talk|speak|say|shout|whisper|call)/i';

    /** @return "speaks"|"gives"|"does"|"waits" */
    public static function of(AssetSource $assets, AssetRef $motion): string
    {
        $recipe = $assets->digest($motion)['recipe'] ?? null;
        $model = is_array($recipe) && is_string($recipe['model'] ?? null) ? $recipe['model'] : '';
        $settings = is_array($recipe) && is_array($recipe['settings'] ?? null) ? $recipe['settings'] : [];
        $score = is_string($settings['score'] ?? null) ? $settings['score'] : '';

        return match (true) {
            $model === 'talk', $model === 'act' && (ScoreBook::all()[$score]['talks'] ?? []) !== [] => 'speaks',
            $model === 'handOver', $model === 'receive' => 'gives',
            $model === 'idle' => 'waits',
            $model === '' && preg_match(self::SPEAKS, $motion->name) === 1 => 'speaks',
            default => 'does',
        };
    }
}
