<?php

declare(strict_types=1);

namespace CrispReel\Core\Evaluate;

use CrispReel\Core\Camera\CameraPose;
use CrispReel\Core\Compile\CompiledScene;
use CrispReel\Core\Compile\Heard;
use CrispReel\Core\Compile\Utterance;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;

/**
 * How sounds of a scene are heard from the camera on air: what is farther away is softer, and what is at a side is more on that side.
 * Only of lanes that the mix says it of, and of what comes from somebody or something.
 */
final class HeardFrom
{
    /** Metres up to which a sound is as loud as it is; from there on it is softer by the distance; and decibels at most. */
    private const NEAR = 2.5;

    private const MOST = 18.0;

    /** How far to the side what is at the picture's border is, what is square to the view is, of 1. */
    private const BORDER = 0.7;

    private const SQUARE = 0.9;

    /** Frames from one look to the next. */
    private const STEP = 6;

    /** @var array<string, array{float, float}> by item and frame */
    private array $known = [];

    public function __construct(private readonly CompiledScene $scene)
    {
    }

    /** @return list<array{float, float, float}> of a line: frames, decibels, and side (-1 left to 1 right), straight between them */
    public function line(Utterance $u): array
    {
        return $this->along('speech', $u->line->item, $u->start, $u->end);
    }

    /** @return list<array{float, float, float}> the same of a sound */
    public function sound(Heard $h): array
    {
        $item = $this->source($h);

        return $item === null ? [] : $this->along($h->sound->lane, $item, $h->start, $h->end);
    }

    /** Whom or what a sound comes from; null: from nowhere in the scene. */
    private function source(Heard $h): ?string
    {
        $d = $this->scene->document;

        return $h->noise->item ?? $h->sound->thing ?? $d->contacts[$h->sound->contact ?? '']->item
            ?? $d->lines[$h->sound->line ?? '']->item ?? null;
    }

    /** @return list<array{float, float, float}> */
    private function along(string $lane, string $item, float $start, float $end): array
    {
        if (! in_array($lane, $this->scene->document->mix->placed, true) || ! isset($this->scene->document->items[$item])) {
            return [];
        }
        $end = min($end, $this->scene->frames - 0.01);
        $frames = $end - $start < self::STEP ? [$start] : [
            $start, ...range(self::STEP * ceil($start / self::STEP), $end, self::STEP), $end,
        ];
        foreach ($this->scene->shots as $shot) {
            if ($shot->in > $start && $shot->in < $end) {
                array_push($frames, $shot->in - 0.01, (float) $shot->in);
            }
        }
        $frames = array_values(array_unique(array_map(static fn (float|int $f): float => round(max(0.0, $f), 2), $frames)));
        sort($frames);
        $out = array_map(fn (float $f): array => [$f, ...$this->at($item, $f)], $frames);

        // What is the same throughout is said once.
        return count(array_unique(array_map(static fn (array $p): string => "{$p[1]} {$p[2]}", $out))) === 1 ? [$out[0]] : $out;
    }

    /** @return array{float, float} decibels and side */
    private function at(string $item, float $frame): array
    {
        return $this->known["{$item} {$frame}"] ??= $this->seen($item, $frame);
    }

    /** @return array{float, float} */
    private function seen(string $item, float $frame): array
    {
        $air = null;
        foreach ($this->scene->shots as $shot) {
            $air = $frame >= $shot->in && $frame < ($shot->out ?? INF) ? $shot : $air;
        }
        $camera = $air === null ? null : $this->scene->document->cameras[$air->camera] ?? null;
        if ($camera === null) {
            return [0.0, 0.0];
        }
        $moment = $this->scene->poses->at($frame);
        $joint = isset($this->scene->lanes[$item]) ? $this->scene->lanes[$item]->figure->hips : null;
        $d = $this->scene->document;

        return self::from(
            SceneEvaluator::camera($this->scene, $camera, $frame, []), $moment->joint($item, $joint)->position, $d->width / $d->height,
        );
    }

    /**
     * @param  array{float, float, float}  $p  where it comes from
     * @return array{float, float} decibels and side
     */
    public static function from(CameraPose $camera, array $p, float $aspect): array
    {
        $away = V3::sub($p, $camera->position);
        $decibels = -min(self::MOST, 20.0 * log10(max(1.0, V3::length($away) / self::NEAR)));
        $seen = Q4::rotate(Q4::conjugate($camera->rotation), $away);
        $angle = abs(atan2($seen[0], -$seen[2]));
        [$x] = $camera->project($p, $aspect);
        $side = match (true) {
            $angle < M_PI_2 && abs($x) <= 1.0 => self::BORDER * abs($x),
            $angle < M_PI_2 => self::BORDER + (self::SQUARE - self::BORDER) * (1.0 - 1.0 / abs($x)),
            default => self::SQUARE * sin($angle),
        };

        return [round($decibels, 2), round($seen[0] < 0.0 ? -$side : $side, 3)];
    }
}
