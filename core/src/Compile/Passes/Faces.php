<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile\Passes;

use CrispReel\Core\Compile\Draft;
use CrispReel\Core\Compile\FaceLayer;
use CrispReel\Core\Compile\Pass;
use CrispReel\Core\Compile\Utterance;
use CrispReel\Core\Document\Expression;
use CrispReel\Core\Speech\Emotions;

/** The face of everybody who says, hears or shows something. */
final class Faces implements Pass
{
    public function settle(Draft $draft): void
    {
        $document = $draft->document;
        $heard = $draft->dialogue()->heard();
        $out = [];
        foreach ($draft->lanes() as $id => $lane) {
            $item = $document->items[$id];
            $says = array_values(array_filter($draft->utterances(), static fn (Utterance $u): bool => $u->line->item === $item->id));
            $hears = $item->meets ? $heard[$id] ?? [] : [];
            $shows = array_values(array_filter($document->expressions, static fn (Expression $e): bool => $e->item === $item->id));
            if ($says !== [] || $hears !== [] || $shows !== [] || $item->resting !== Emotions::NONE) {
                $out[$id] = new FaceLayer(
                    $lane->figure, $says, $hears, $shows, $item->resting, $item->restingAmount, crc32($item->id),
                    $document->rate->perSecond(),
                );
            }
        }
        $draft->putFaces($out);
    }
}
