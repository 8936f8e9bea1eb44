<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile\Passes;

use CrispReel\Core\Compile\Carry;
use CrispReel\Core\Compile\Draft;
use CrispReel\Core\Compile\Fall;
use CrispReel\Core\Compile\Moment;
use CrispReel\Core\Compile\Mounts;
use CrispReel\Core\Compile\Pass;
use CrispReel\Core\Document\Link;
use CrispReel\Core\Math\Placement;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;

/** What carries each thing, from when to when, and where it is left: item after item, those that carry first. */
final class Carries implements Pass
{
    /** Seconds that something flies from hand to hand at most: it rises 3 m by then. What is taken later fell, and lay there. */
    private const FLIGHT = 1.6;

    private Draft $draft;

    /** @var array<string, list<Carry>> settled so far */
    private array $carries = [];

    public function settle(Draft $draft): void
    {
        $this->draft = $draft;
        foreach ($draft->order() as $id) {
            $this->settleOne($id);
        }
        $draft->putCarries($this->carries);
    }

    private function now(float $frame): Moment
    {
        return $this->draft->posesWith($this->carries)->at($frame);
    }

    private function settleOne(string $child): void
    {
        $links = array_values(array_filter($this->draft->document->links, static fn (Link $l): bool => $l->child === $child));
        usort($links, static fn (Link $a, Link $b): int => [$a->from, $a->id] <=> [$b->from, $b->id]);
        $this->carries[$child] = $links === [] ? [] : [new Carry(0, null, null, $this->draft->places()[$child], own: true)];
        foreach ($links as $i => $link) {
            // Where it is just before the carry begins, by what has been settled so far.
            $now = $this->now($link->from)->place($child);
            [$joint, $mount] = $this->mountOf($link);
            $parent = $this->now($link->from)->joint($link->parent, $joint)->of($mount);
            [$offset, $upright] = $this->offset($link, $mount, $parent, $now);
            $this->carries[$child][] = new Carry($link->from, $link->parent, $joint, $offset, $upright, $link->easeFrames, $now);
            $next = $links[$i + 1]->from ?? null;
            if ($link->to !== null && ($next === null || $next > $link->to)) {
                $this->carries[$child][] = $this->released($link, $links[$i + 1] ?? null);
            }
        }
    }

    /** What a carry that ends leaves: a thing at rest, one that falls, or one that flies to whoever catches it. */
    private function released(Link $link, ?Link $next): Carry
    {
        $at = (int) $link->to;
        $place = $this->now($at)->place($link->child);
        if ($link->release === 'stay') {
            return new Carry($at, null, null, $place);
        }
        if ($next !== null && ($next->from - $at) / $this->draft->document->rate->perSecond() <= self::FLIGHT) {
            [$joint, $mount] = $this->mountOf($next);
            $parent = $this->now($next->from)->joint($next->parent, $joint)->of($mount);
            [$offset, $upright] = $this->offset($next, $mount, $parent, $place);
            $there = $this->now($next->from)->joint($next->parent, $joint);
            $caught = $next->keep === 'place' ? $parent : ($upright ? new Placement(
                V3::add($parent->position, $offset->position),
                Q4::aroundY(Q4::heading($there->rotation)),
                $offset->scale,
            ) : $there->of($offset));

            return new Carry(
                $at,
                null,
                null,
                $place,
                caught: new Placement($caught->position, $caught->rotation, $place->scale),
                until: $next->from,
            );
        }
        $before = $this->now($at - 1)->place($link->child);
        $velocity = $link->velocity ?? V3::mul(V3::sub($place->position, $before->position), $this->draft->document->rate->perSecond());
        $digest = $this->draft->assets->digest($this->draft->document->assets[$this->draft->document->items[$link->child]->asset]);

        /** @var array{list<float>, list<float>} $bounds */
        $bounds = $digest['bounds'] ?? [[-0.05, 0.0, -0.05], [0.05, 0.1, 0.05]];
        $reach = 4.0 + 2 * V3::length($velocity);
        [$x, $y, $z] = $place->position;
        $solids = $this->draft->around
            ->solids([$x - $reach, $z - $reach, $x + $reach, $z + $reach]);
        $floor = min(0.0, $y - 0.5);

        return new Carry(
            $at,
            null,
            null,
            $place,
            fall: new Fall(
                $place,
                $velocity,
                $bounds,
                static fn (float $px, float $pz, float $top): float => $solids->height($px, $pz, $top) ?? $floor,
            ),
        );
    }

    /** @return array{int|null, Placement} joint of a figure, and the mount in its (or the item's) space */
    private function mountOf(Link $link): array
    {
        $none = new Placement([0.0, 0.0, 0.0]);
        $item = $this->draft->document->items[$link->parent];
        if ($link->mount === '') {
            return [null, $none];
        }
        $figure = $this->draft->figure($item);
        $joint = $figure?->skeleton->joint($link->mount);
        if ($figure !== null && $joint !== null) {
            $grip = match ($link->mount) {
                'handL' => $figure->grip('L'), 'handR' => $figure->grip('R'), default => null,
            };

            return [$joint, $link->keep === 'grip' && $grip !== null ? new Placement($grip[0], $grip[1]) : $none];
        }

        return [null, Mounts::of($this->draft->document, $this->draft->assets, $item, $link->mount)];
    }

    /**
     * Keep-place holds what was; a grip brings the child's own hold to the parent's mount.
     *
     * @return array{Placement, bool}
     */
    private function offset(Link $link, Placement $mount, Placement $parentMount, Placement $now): array
    {
        $scale = $now->scale;
        if ($link->keep === 'place') {
            $unscaled = new Placement($parentMount->position, $parentMount->rotation);
            $rel = $unscaled->inverse()->of($now);

            return [
                $mount->of(new Placement(V3::mul($rel->position, 1 / $parentMount->scale), $rel->rotation, $scale / $parentMount->scale)),
                false,
            ];
        }
        $asset = $this->draft->document->assets[$this->draft->document->items[$link->child]->asset];
        $mounts = $this->draft->assets->digest($asset)['mounts'] ?? [];
        $mounts = is_array($mounts) ? $mounts : [];
        $hang = isset($mounts['hang']);

        /** @var array{position: array{float, float, float}, rotation: array{float, float, float, float}} $hold */
        $hold = $mounts['hang'] ?? $mounts['hold'] ?? ['position' => [0.0, 0.0, 0.0], 'rotation' => Q4::IDENTITY];
        $back = (new Placement($hold['position'], $hold['rotation']))->inverse();
        $own = new Placement(V3::mul($back->position, $scale / $parentMount->scale), $back->rotation, $scale / $parentMount->scale);
        if ($hang) {
            // Turned upright at each frame: keep the hold's place apart from the mount's turn.
            return [new Placement(V3::mul($hold['position'], -$scale), Q4::IDENTITY, $scale), true];
        }

        return [$mount->of($own), false];
    }
}
