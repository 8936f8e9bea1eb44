<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile;

use Closure;
use CrispReel\Core\Math\Placement;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;

/**
 * Heads and eyes of a frame that are turned to something: first each head to where the eyes of the other are before anybody looks, then
 * the eyes to where they are once both heads are turned.
 */
final class Looks
{
    /** How far the mouth lies below the eyes, of a body's height. */
    private const MOUTH = 0.04;

    /** @var array<string, list<float>> rows with heads turned, the eyes not yet */
    private array $turned = [];

    private readonly float $seconds;

    /** @var array<string, float> degrees that are missing to what is looked at, by contact */
    public array $missing = [];

    /**
     * @param  Moment  $blind  the frame before anybody looks
     * @param  Closure(string, bool): list<array{Hold, float}>  $active  looks, or all else that holds somebody now, with their shares
     */
    public function __construct(
        private readonly Poses $scene, private readonly Moment $blind, private readonly Closure $active, float $frame,
    ) {
        $this->seconds = $frame / $scene->document->rate->perSecond();
    }

    /**
     * @param  list<array{Hold, float}>  $looks
     * @return list<float>
     */
    public function row(string $item, array $looks): array
    {
        $reaching = new Reaching($this->scene->lanes[$item]->figure, $this->headed($item, $looks));
        $back = $this->blind->place($item)->inverse();
        foreach ($looks as [$h, $w]) {
            $to = $this->aimOf($item, $h, true);
            $missing = $reaching->aim($back->point($to), $w);
            if ($h->by === 1.0) {
                $this->missing[$h->contact->id] = $missing;
            }
        }

        return $reaching->row();
    }

    /**
     * @param  list<array{Hold, float}>  $looks
     * @return list<float> with the head turned, the eyes not yet
     */
    private function headed(string $item, array $looks): array
    {
        if (isset($this->turned[$item])) {
            return $this->turned[$item];
        }
        $reaching = new Reaching($this->scene->lanes[$item]->figure, $this->blind->row($item));
        $back = $this->blind->place($item)->inverse();
        foreach ($looks as [$h, $w]) {
            $to = $this->aimOf($item, $h, false);
            // A trunk that turns would take hands off what they touch.
            $reaching->bring($h, $back->of(new Placement($to)), $w * $h->by, $h->by === 1.0 && ($this->active)($item, false) === []);
        }

        return $this->turned[$item] = $reaching->row();
    }

    /**
     * What a look is brought to: by itself it rests now here, now there on a face, and leaves it for moments.
     *
     * @param  bool  $eyes  the eyes', once all heads are turned; else the head's
     * @return array{float, float, float}
     */
    private function aimOf(string $item, Hold $h, bool $eyes): array
    {
        $face = $this->faceOf($h, $eyes);
        $glances = $h->by < 1.0 ? $this->scene->eyes[$item]->glances ?? null : null;
        if ($face === null || $glances === null) {
            return match (true) {
                $face === null => $this->blind->target($h)->position,
                $this->toFirst($item, $face) => $face[0],
                default => $face[1],
            };
        }
        $at = V3::mix($face[0], $face[1], 0.5);
        if ($eyes) {
            [$l, $r, $mouth] = $glances->point($this->seconds);
            $at = V3::add(V3::add(V3::mul($face[0], $l), V3::mul($face[1], $r)), V3::mul($face[2], $mouth));
        }
        [$aside, $down] = $eyes ? $glances->eyes($this->seconds) : $glances->head($this->seconds);

        return abs($aside) + abs($down) < 1e-3 ? $at : $this->beside($item, $at, $aside, $down);
    }

    /** @param  list<array{float, float, float}>  $face */
    private function toFirst(string $item, array $face): bool
    {
        $from = $this->blind->place($item)->position;

        return V3::distance($from, $face[0]) <= V3::distance($from, $face[1]);
    }

    /**
     * A place so many degrees beside another, as somebody sees it.
     *
     * @param  array{float, float, float}  $at
     * @return array{float, float, float}
     */
    private function beside(string $item, array $at, float $aside, float $down): array
    {
        $from = $this->blind->face($item) ?? $this->blind->place($item)->position;
        $way = V3::sub($at, $from);
        $level = hypot($way[0], $way[2]);
        [$turn, $pitch] = [atan2($way[0], $way[2]) + deg2rad($aside), atan2($way[1], $level) - deg2rad($down)];
        $far = V3::length($way);

        return V3::add($from, [$far * cos($pitch) * sin($turn), $far * sin($pitch), $far * cos($pitch) * cos($turn)]);
    }

    /**
     * The face of somebody who is looked at; null where it is no face that is looked at.
     *
     * @param  bool  $turned  once their head is turned to what they look at
     * @return array{array{float, float, float}, array{float, float, float}, array{float, float, float}}|null both eyes and the mouth
     */
    private function faceOf(Hold $h, bool $turned): ?array
    {
        $other = $h->contact->target;
        $figure = $other === null ? null : $this->scene->lanes[$other]->figure ?? null;
        $face = $figure === null ? null : Whereabouts::faceOf($figure);
        $isFace = $h->contact->offset === [0.0, 0.0, 0.0] && in_array($h->contact->mount, ['', 'head'], true);
        if ($other === null || $figure === null || $face === null || ! $isFace) {
            return null;
        }
        $looks = $turned ? ($this->active)($other, true) : [];
        $row = $looks === [] ? $this->blind->row($other) : $this->headed($other, $looks);
        $place = $this->blind->place($other);
        [$p, $q] = $figure->skeleton->jointIn($row, $figure->hips, $face[0]);
        $middle = V3::add($p, Q4::rotate($q, $face[1]));
        $out = [];
        foreach (['eyeL', 'eyeR'] as $role) {
            $j = $figure->skeleton->roles[$role] ?? null;
            $out[] = $place->point($j === null ? $middle : $figure->skeleton->jointIn($row, $figure->hips, $j)[0]);
        }
        $up = Q4::rotate($q, Q4::rotate(Q4::conjugate($figure->restTurn($face[0])), [0.0, self::MOUTH * $figure->height(), 0.0]));

        return [$out[0], $out[1], $place->point(V3::sub($middle, $up))];
    }
}
