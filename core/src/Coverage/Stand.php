<?php

declare(strict_types=1);

namespace CrispReel\Core\Coverage;

use CrispReel\Core\Camera\Aim;
use CrispReel\Core\Camera\BoxFit;
use CrispReel\Core\Camera\CameraPose;
use CrispReel\Core\Camera\Framer;
use CrispReel\Core\Camera\Gate;
use CrispReel\Core\Camera\Marks;
use CrispReel\Core\Camera\Refusal;
use CrispReel\Core\Compile\Carry;
use CrispReel\Core\Compile\CompiledScene;
use CrispReel\Core\Compile\Memory;
use CrispReel\Core\Compile\Subjects;
use CrispReel\Core\Compile\Surroundings;
use CrispReel\Core\Document\AssetSource;
use CrispReel\Core\Document\Framing;
use CrispReel\Core\Geometry\Solids;
use CrispReel\Core\Math\V3;

/** A moment of a settled scene at which somebody looks for a place for the camera. */
final class Stand
{
    /** Metres around the subject in which things may be in the way. */
    private const AROUND = 30.0;

    private const ENOUGH = 0.9;

    /** Of the way to the subject: what is nearer is foreground. */
    private const CLOSE = 0.45;

    private readonly Subjects $subjects;

    /** @var array<string, Marks> */
    private array $marks = [];

    /** @var array<string, Marks> */
    private array $faces = [];

    private ?Solids $solids = null;

    private ?Sight $sight = null;

    public function __construct(
        public readonly CompiledScene $scene,
        private readonly AssetSource $assets,
        private readonly Memory $memory,
        public readonly int $frame,
        public readonly Gate $gate,
    ) {
        $this->subjects = new Subjects($scene->poses, $scene->document, $assets, $memory);
    }

    public function name(string $item): string
    {
        return $this->scene->document->items[$item]->name;
    }

    public function isPerson(string $item): bool
    {
        return $this->subjects->isPerson($item);
    }

    /** Whether a hand, named by the joint's role, holds or touches something at this moment. */
    public function isBusy(string $person, string $role): bool
    {
        foreach ($this->scene->document->contacts as $c) {
            if ($c->item === $person && $c->effector === $role && $c->weight($this->frame) > 0.5) {
                return true;
            }
        }
        $joint = $this->scene->lanes[$person]->figure->skeleton->roles[$role] ?? null;
        foreach ($joint === null ? [] : $this->scene->carries as $carries) {
            $now = array_filter($carries, fn (Carry $c): bool => $c->from <= $this->frame);
            $last = end($now);
            if ($last !== false && $last->parent === $person && $last->joint === $joint) {
                return true;
            }
        }

        return false;
    }

    public function marks(string $item): Marks
    {
        return $this->marks[$item] ??= $this->subjects->marks($item, $this->frame);
    }

    /** Somebody's face at this very moment. */
    public function face(string $item): Marks
    {
        return $this->faces[$item] ??= $this->subjects->face($item, $this->frame);
    }

    /** What comes of a framing: as it is, or as near to it as what stands around allows. */
    public function propose(string $family, string $title, Framing $framing): Proposal
    {
        $sight = $this->sight();
        $blocked = '';
        foreach ((new Arrangements($this))->of($framing) as $n => $try) {
            $aim = $this->solve($try);
            if ($aim instanceof Refusal) {
                return new Proposal($family, $title, $framing, null, $aim->sentence);
            }
            $hides = $this->hides($sight, $try, $aim);
            if ($hides === null) {
                $says = $n === 0 || $blocked === '' ? '' : Tries::changed($framing, $try, $blocked);

                return new Proposal($family, $title, $try, $this->view($aim, $try), $says);
            }
            $blocked = $blocked === '' ? $hides : $blocked;
        }

        return new Proposal($family, $title, $framing, null, $blocked === '' ? 'It is not in the picture.' : "{$blocked} is in the way.");
    }

    /**
     * Share of a face that is clear of things and of others.
     *
     * @param  list<string>  $but
     */
    public function clear(Aim $aim, string $who, array $but): float
    {
        return $this->sight()->face($aim->position, $this->face($who), [$who, ...$but]);
    }

    /**
     * What hides a face from a place, and what crowds a lens there; null: nothing.
     *
     * @param  list<string>  $but  people who may be in the way
     * @return array{string|null, string|null}
     */
    public function trouble(Aim $aim, string $who, array $but): array
    {
        return [$this->sight()->covers($aim->position, $this->face($who), [$who, ...$but]), $this->sight()->crowds($aim)];
    }

    /** The side of the line between subject and partner from which more is seen of both, and behind them: 1 or -1. */
    public function side(Framing $between): float
    {
        $best = [-INF, 1.0];
        foreach ([1.0, -1.0] as $hand) {
            $sum = 0.0;
            foreach ([['together', 'full', 90.0], ['single', 'medium', 32.0], ['single', 'full', 60.0]] as [$kind, $size, $off]) {
                $f = Tries::with($between, ['kind' => $kind, 'size' => $size, 'sideDeg' => $off * $hand, 'focalMm' => 40.0]);
                $aim = $this->solve($f);
                if ($aim instanceof Aim) {
                    $sum += $this->seen($this->sight(), $f, $aim)[0] + 0.4 * $this->sight()->backdrop($aim, $this->gate)
                        - ($this->sight()->crowds($aim) === null ? 0.0 : 0.5);
                }
            }
            $best = $sum > $best[0] + 1e-6 ? [$sum, $hand] : $best;
        }

        return $best[1];
    }

    /** What stands against a framing just as it is, or why there is none; null: nothing. */
    public function against(Framing $f): ?string
    {
        $aim = $this->solve($f);

        return $aim instanceof Refusal ? $aim->sentence : $this->hides($this->sight(), $f, $aim);
    }

    /** Where a framing puts the lens at this moment, or why it cannot, whatever stands around. */
    public function solve(Framing $f): Aim|Refusal
    {
        return Framer::solve($f, $this->marks($f->subject), array_map($this->marks(...), $f->with()), $this->gate);
    }

    /** What stands against a framing; null: nothing. */
    private function hides(Sight $sight, Framing $f, Aim $aim): ?string
    {
        if ($f->kind === 'single' && $f->partner !== null && $this->shows($f->partner, $aim)) {
            return $this->name($f->partner);
        }
        [$seen, $hides] = $this->seen($sight, $f, $aim);
        if ($seen < self::ENOUGH) {
            return $hides;
        }
        $far = V3::distance($aim->position, $this->marks($f->subject)->middle('eyes'));

        return $sight->crowds($aim)
            ?? $sight->foreground($aim, self::CLOSE * $far, $f->kind === 'single' ? [$f->subject] : $f->people(), $this->gate);
    }

    /** Whether head or shoulders of somebody are in the picture. */
    private function shows(string $item, Aim $aim): bool
    {
        $m = $this->marks($item);
        $points = array_filter(
            [...$m->of('crown'), ...$m->of('mass')],
            fn (array $p): bool => $aim->project($p, $this->gate)[2] > 0.05,
        );
        if ($points === []) {
            return false;
        }
        [$x, $y] = BoxFit::extent(array_values($points), $aim, $this->gate);

        return $x[0] < 1.0 && $x[1] > -1.0 && $y[0] < 1.0 && $y[1] > -1.0;
    }

    /** @return array{float, string} */
    private function seen(Sight $sight, Framing $f, Aim $aim): array
    {
        $all = $f->kind === 'single' ? [$f->subject] : $f->people();
        if ($f->kind === 'single' && $f->part !== 'face') {
            return $sight->point($aim->position, $this->marks($f->subject)->part($f->part), [$f->subject]);
        }
        $found = $sight->of($aim, $this->marks($f->subject), $all, $this->gate);
        foreach ($f->kind === 'together' ? $f->with() : [] as $who) {
            $other = $sight->of($aim, $this->marks($who), $all, $this->gate);
            $found = $other[0] < $found[0] ? $other : $found;
        }

        return $found;
    }

    private function view(Aim $aim, Framing $f): CameraPose
    {
        return $aim->pose($this->gate, $this->marks($f->subject)->part($f->part), $f->fStop);
    }

    private function sight(): Sight
    {
        if ($this->sight !== null) {
            return $this->sight;
        }
        $people = [];
        foreach (array_keys($this->scene->lanes) as $id) {
            if ($this->isPerson((string) $id)) {
                $people[(string) $id] = [$this->name((string) $id), $this->face((string) $id)];
            }
        }

        return $this->sight = new Sight($this->solids(), $people);
    }

    private function solids(): Solids
    {
        if ($this->solids === null) {
            $around = new Surroundings($this->scene->document, $this->assets, $this->memory);
            $xs = $zs = [];
            foreach (array_keys($this->scene->document->items) as $id) {
                $at = $this->scene->poses->at($this->frame)->place((string) $id)->position;
                [$xs[], $zs[]] = [$at[0], $at[2]];
            }
            $this->solids = $around->forLens([
                min([0.0, ...$xs]) - self::AROUND, min([0.0, ...$zs]) - self::AROUND,
                max([0.0, ...$xs]) + self::AROUND, max([0.0, ...$zs]) + self::AROUND,
            ]);
        }

        return $this->solids;
    }
}
