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
    /** @var array<string, list<float>> rows with heads turned, the eyes not yet */
    private array $turned = [];

    /** @var array<string, float> degrees that are missing to what is looked at, by contact */
    public array $missing = [];

    /**
     * @param  Moment  $blind  the frame before anybody looks
     * @param  Closure(string, bool): list<array{Hold, float}>  $active  looks, or all else that holds somebody now, with their shares
     */
    public function __construct(private readonly Poses $scene, private readonly Moment $blind, private readonly Closure $active)
    {
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
            $to = $this->eyesOf($h, $this->blind->place($item), true) ?? $this->blind->target($h)->position;
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
            $to = $this->eyesOf($h, $this->blind->place($item), false) ?? $this->blind->target($h)->position;
            // A trunk that turns would take hands off what they touch.
            $reaching->bring($h, $back->of(new Placement($to)), $w * $h->by, $h->by === 1.0 && ($this->active)($item, false) === []);
        }

        return $this->turned[$item] = $reaching->row();
    }

    /**
     * The eye of somebody who is looked at that is nearer to the one who looks; null where it is no face that is looked at.
     *
     * @param  bool  $turned  once their head is turned to what they look at
     * @return array{float, float, float}|null
     */
    private function eyesOf(Hold $h, Placement $from, bool $turned): ?array
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
        $eyes = [];
        foreach (['eyeL', 'eyeR'] as $role) {
            $j = $figure->skeleton->roles[$role] ?? null;
            $eyes[] = $j === null ? null : $place->point($figure->skeleton->jointIn($row, $figure->hips, $j)[0]);
        }
        if ($eyes[0] === null || $eyes[1] === null) {
            [$p, $q] = $figure->skeleton->jointIn($row, $figure->hips, $face[0]);

            return $place->point(V3::add($p, Q4::rotate($q, $face[1])));
        }

        return V3::distance($from->position, $eyes[0]) <= V3::distance($from->position, $eyes[1]) ? $eyes[0] : $eyes[1];
    }
}
