<?php

declare(strict_types=1);

namespace App\Scenes;

use CrispReel\Core\Compile\CompiledScene;
use CrispReel\Core\Compile\Heard;
use CrispReel\Core\Document\Document;
use CrispReel\Core\Evaluate\HeardFrom;

/** What a page needs to let a scene be heard. */
final class SoundManifest
{
    /** @return array<string, mixed> where a sound is heard, and how it comes and goes */
    public static function sound(Heard $h, Document $d): array
    {
        return [
            'id' => $h->sound->id, 'sound' => $d->assets[$h->sound->asset]->blob, 'start' => round($h->start, 2),
            'end' => round($h->end, 2), 'offset' => $h->sound->sourceIn, 'turn' => round($h->seconds, 4), 'repeats' => $h->sound->repeats,
            'decibels' => $h->sound->level, 'fadeIn' => $h->sound->fadeIn, 'fadeOut' => $h->sound->fadeOut,
            'yields' => $h->givesWay(), 'muted' => $h->sound->muted, 'lane' => $h->sound->lane,
            'curve' => array_map(static fn (array $p): array => [round($p[0], 3), $p[1]], $h->sound->curve),
        ];
    }

    /**
     * What is heard to happen, in few words: there may be hundreds of steps.
     *
     * @param  list<Heard>  $heard
     * @return list<array<mixed>> what, item, sound, start, end, offset, turn, whether it goes round, decibels, fades
     */
    public static function noises(array $heard, Document $d): array
    {
        $out = [];
        foreach ($heard as $h) {
            if ($h->noise !== null) {
                $out[] = [
                    $h->noise->what, $h->noise->item, $d->assets[$h->sound->asset]->blob, round($h->start, 2), round($h->end, 2),
                    $h->sound->sourceIn, round($h->seconds, 4), $h->sound->repeats, $h->sound->level, $h->sound->fadeIn,
                ];
            }
        }

        return $out;
    }

    /** @return array{lines: array<string, mixed>, sounds: array<string, mixed>, noises: list<mixed>} frames, decibels, sides */
    public static function places(CompiledScene $scene): array
    {
        $of = new HeardFrom($scene);
        $lines = $sounds = $noises = [];
        foreach ($scene->utterances as $u) {
            $lines[$u->line->id] = $of->line($u);
        }
        foreach ($scene->heard as $h) {
            if ($h->noise === null) {
                $sounds[$h->sound->id] = $of->sound($h);
            } else {
                $noises[] = $of->sound($h);
            }
        }

        return ['lines' => $lines, 'sounds' => $sounds, 'noises' => $noises];
    }
}
