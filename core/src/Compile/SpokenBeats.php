<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile;

use CrispReel\Core\Document\AssetSource;
use CrispReel\Core\Document\Beat;
use CrispReel\Core\Document\Document;
use CrispReel\Core\Document\Input;
use CrispReel\Core\Document\Line;
use CrispReel\Core\Speech\Script;
use stdClass;

/**
 * Beats that go with a line begin and last as it does, and gestures that it asks for begin with their word: whoever changes the words
 * moves them.
 */
final class SpokenBeats
{
    /** Seconds that the body begins before the first sound, and goes on after the last one (as a talk's own strokes have it). */
    private const BEFORE = 0.35;

    private const AFTER = 0.60;

    /** Above all that people lay over by hand. */
    private const LAYER = 8;

    /** Letters of a line that a talk takes. */
    private const MOST = 400;

    public static function timed(Document $document, AssetSource $assets, Memory $memory): Document
    {
        $by = [];
        foreach ($document->lines as $line) {
            if ($line->beat !== null) {
                $by[$line->beat] = $line->id;
            }
        }
        $asked = array_filter($document->lines, static fn (Line $l): bool => str_contains($l->text, '['));
        if ($by === [] && $asked === []) {
            return $document;
        }
        $said = [];
        foreach (Utterances::of($document, $assets, $memory) as $u) {
            $said[$u->line->id] = $u;
        }

        $fitted = array_map(static function (Beat $b) use ($by, $said, $assets, $document): Beat {
            $u = $said[$by[$b->id] ?? ''] ?? null;

            return $u === null || $u->line->item !== $b->item ? $b : self::fitted($b, $u, $assets, $document);
        }, $document->beats);

        return $document->withBeats([...$fitted, ...self::gestures($document, array_values($said))]);
    }

    /**
     * Motions by their names in brackets, laid over whatever the upper body does.
     *
     * @param  list<Utterance>  $said
     * @return list<Beat>
     */
    private static function gestures(Document $document, array $said): array
    {
        $motions = [];
        foreach ($document->assets as $a) {
            if ($a->kind === 'motion') {
                $motions[mb_strtolower($a->name)] ??= $a->id;
            }
        }
        $out = [];
        foreach ($said as $u) {
            foreach ($u->reading->events as $k => [$do, $at]) {
                if (isset($motions[$do]) && ! in_array($do, Script::DOES, true) && $document->items[$u->line->item]->kind === 'performer') {
                    $out[] = Beat::from(new Input([
                        'id' => "{$u->line->id}.g{$k}", 'item' => $u->line->item, 'motion' => $motions[$do],
                        'start' => max(0, (int) round($u->frame($at))),
                        'play' => ['layer' => self::LAYER, 'mask' => ['head', 'trunk', 'armL', 'armR'], 'fadeIn' => 5, 'fadeOut' => 8],
                    ]));
                }
            }
        }

        return $out;
    }

    private static function fitted(Beat $b, Utterance $u, AssetSource $assets, Document $document): Beat
    {
        $start = max(0, (int) round($u->from - self::BEFORE * $u->perSecond));
        $end = max($start + 1, (int) round($u->to + self::AFTER * $u->perSecond));
        $recipe = $assets->digest($document->assets[$b->motion])['recipe'] ?? null;
        $said = $b->toArray();
        if (is_array($recipe) && ($recipe['model'] ?? null) === 'talk') {
            $seconds = max(2.0, round(($end - $start) / $u->perSecond, 3));
            $line = mb_substr(Script::heard($u->line->text), 0, self::MOST);

            return self::made(['start' => $start, 'settings' => ['seconds' => $seconds, 'line' => $line] + $b->settings] + $said);
        }
        $play = (array) $said['play'];

        // Any other motion is begun anew until the line is over, or cut there.
        return self::made(['start' => $start, 'play' => ['fill' => $end, 'length' => $end - $start] + $play] + $said);
    }

    /** @param  array<string, mixed>  $said */
    private static function made(array $said): Beat
    {
        return Beat::from(new Input(array_filter(
            array_map(static fn (mixed $v): mixed => $v instanceof stdClass ? (array) $v : $v, $said),
            static fn (mixed $v): bool => $v !== null,
        )));
    }
}
