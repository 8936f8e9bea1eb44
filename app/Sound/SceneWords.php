<?php

declare(strict_types=1);

namespace App\Sound;

use CrispReel\Core\Compile\CompiledScene;
use CrispReel\Core\Speech\Script;
use CrispReel\Core\Speech\Subtitles;
use CrispReel\Core\Speech\Word;

/** What is said in a range of a scene's frames, as subtitles that begin with it. */
final class SceneWords
{
    public static function of(CompiledScene $scene, int $from, int $to): Subtitles
    {
        $rate = $scene->document->rate->perSecond();
        $out = new Subtitles;
        foreach ($scene->utterances as $u) {
            if ($u->from >= $to || $u->to <= $from) {
                continue;
            }
            $at = static fn (float $seconds): float => ($u->frame($seconds) - $from) / $rate;
            $out->add(
                $scene->document->items[$u->line->item]->name, Script::heard($u->line->text),
                array_map(static fn (Word $w): Word => new Word($w->text, $at($w->from), $at($w->to)), $u->reading->words),
                ($u->from - $from) / $rate, (min($u->to, $to) - $from) / $rate,
            );
        }

        return $out;
    }
}
