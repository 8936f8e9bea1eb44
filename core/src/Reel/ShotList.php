<?php

declare(strict_types=1);

namespace CrispReel\Core\Reel;

use CrispReel\Core\Compile\CompiledScene;
use CrispReel\Core\Document\Framing;
use CrispReel\Core\Document\Shot;
use CrispReel\Core\Evaluate\SceneEvaluator;

/**
 * The reel as a list: each shot with its camera, how tight it is, its lens, when it is (frames of the scene, seconds, timecodes of the
 * reel) and what is done in it.
 *
 * @phpstan-type Line array{label: string, camera: string, name: string, size: string, focalMm: float, in: int, out: int,
 *     seconds: float, reelIn: string, reelOut: string, action: string}
 */
final class ShotList
{
    /** Share of a shot that a beat has to fill to be named, and frames that do in any case. */
    private const FILLS = 0.3;

    private const LONG = 24;

    /** @return list<Line> */
    public static function of(CompiledScene $scene): array
    {
        $d = $scene->document;
        $at = 0;
        $out = [];
        foreach ($scene->shots as $shot) {
            $camera = $d->cameras[$shot->camera];
            $framing = self::framing($scene, $shot);
            $end = $at + $shot->length();
            $out[] = [
                'label' => $shot->label, 'camera' => $camera->letter,
                'name' => $camera->name === '' ? self::words($scene, $framing) : $camera->name,
                'size' => $framing === null ? '' : $framing->size,
                'focalMm' => round(SceneEvaluator::at($scene, $shot->in)->cameras[$camera->id]->focalMm, 1),
                'in' => $shot->in, 'out' => $shot->out ?? $shot->in, 'seconds' => round($shot->length() / $d->rate->perSecond(), 2),
                'reelIn' => $d->rate->timecode($at), 'reelOut' => $d->rate->timecode($end), 'action' => self::action($scene, $shot),
            ];
            $at = $end;
        }

        return $out;
    }

    /** The list as comma-separated values (RFC 4180), with a line of names; what begins like a formula is no formula. */
    public static function csv(CompiledScene $scene): string
    {
        $lines = [['Shot', 'Camera', 'Name', 'Size', 'Lens mm', 'In', 'Out', 'Seconds', 'Reel in', 'Reel out', 'Action']];
        foreach (self::of($scene) as $l) {
            $lines[] = array_map(strval(...), array_values($l));
        }
        $cell = static function (string $text): string {
            $text = preg_match('/^[=+\-@\t\r]/', $text) === 1 && ! is_numeric($text) ? "'{$text}" : $text;

            return strpbrk($text, ",\"\r\n") === false ? $text : '"'.str_replace('"', '""', $text).'"';
        };

        return implode('', array_map(static fn (array $l): string => implode(',', array_map($cell, $l))."\r\n", $lines));
    }

    private static function framing(CompiledScene $scene, Shot $shot): ?Framing
    {
        $found = null;
        foreach ($scene->document->framings as $f) {
            if ($f->camera === $shot->camera && ($found === null || $f->frame <= $shot->in)) {
                $found = $f;
            }
        }

        return $found;
    }

    private static function words(CompiledScene $scene, ?Framing $f): string
    {
        $name = static fn (?string $id): string => $id === null ? '' : $scene->document->items[$id]->name;

        if ($f === null) {
            return '';
        }
        $all = array_map($name, $f->people());
        $last = array_pop($all);
        $part = ['leftHand' => ', left hand', 'rightHand' => ', right hand'][$f->part] ?? '';

        return match ($f->kind) {
            'overShoulder' => "{$name($f->subject)}, over {$name($f->partner)}",
            'together' => implode(', ', $all)." and {$last}",
            default => $name($f->subject).$part,
        };
    }

    private static function action(CompiledScene $scene, Shot $shot): string
    {
        $out = [];
        $end = $shot->out ?? $shot->in;
        foreach ($scene->lanes as $id => $lane) {
            foreach ([...$lane->segments, ...$lane->layers] as $s) {
                $shared = min($end, $s->end) - max($shot->in, $s->start);
                $name = $scene->document->assets[$s->from->motion]->name;
                if ($shared > 0 && ($shared > self::FILLS * ($end - $shot->in) || $shared > self::LONG) && strtolower($name) !== 'idle') {
                    $out[] = "{$scene->document->items[$id]->name}: ".lcfirst($name);
                }
            }
        }

        return implode('; ', array_unique($out));
    }
}
