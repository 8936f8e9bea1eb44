<?php

declare(strict_types=1);

namespace CrispReel\Core\Meeting;

use CrispReel\Core\Math\Ease;
use CrispReel\Core\Math\Placement;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;
use CrispReel\Core\Motion\ClipTable;
use CrispReel\Core\Rig\Figure;

/**
 * The two halves of a motion of two people, solved for these two: place first, then trunks, then hands on the drawn surfaces, then
 * fingers; who is touched before who touches. No step is gone back to, so the answer is one.
 *
 * @phpstan-type Vec array{float, float, float}
 * @phpstan-type Parts list<array<string, mixed>>
 * @phpstan-type Part array<string, mixed>
 * @phpstan-type Touches array{touches?: Parts, together?: Parts, embrace?: Part, faces?: Part, whirl?: Part, looks?: bool, aside?: float}
 * @phpstan-type Sheet array{
 *     gap: float, touches?: Parts, together?: Parts, embrace?: Part, faces?: Part, whirl?: Part, looks?: bool, aside?: float,
 * }
 */
final class Meeting
{
    /** Bump when any step changes: pairs solved before are then made anew. */
    public const VERSION = 6;

    /** Share of a straight arm at which a place is well in reach. */
    private const WELL = 0.84;

    /** The same for an arm that strikes, at the end of its contact. */
    private const STRUCK = 0.90;

    /** Metres that bodies keep between them. */
    private const CLEAR = 0.03;

    /** Metres that the second is moved at most to stand well. */
    private const STEP = 0.60;

    /** Metres between the hips of two who do not embrace, for people of 1.70 m. */
    private const APART = 0.43;

    /** @var array<string, Person> */
    private array $who;

    /** @var list<Touch> */
    private array $touches;

    private readonly float $rate;

    /** Metres that the worst hand misses its place by. */
    public float $miss = 0.0;

    /** @var Vec by which the second stands off the gap as written */
    public array $shift = [0.0, 0.0, 0.0];

    /** @param  Sheet  $sheet */
    public function __construct(Person $a, Person $b, private readonly array $sheet, float $rate)
    {
        $this->who = ['A' => $a, 'B' => $b];
        $this->rate = $rate;
        $this->touches = array_map(Touch::of(...), $sheet['touches'] ?? []);
    }

    /**
     * @param  array{Figure, Skin, ClipTable, float}  $first  figure, surface, half, and scale
     * @param  array{Figure, Skin, ClipTable, float}  $second
     * @param  Sheet  $sheet
     * @param  float  $pace  how much faster than written both halves are
     * @return array{ClipTable, ClipTable, float} both halves in their own spaces, and metres that the worst hand misses its place by
     */
    public static function solve(array $first, array $second, array $sheet, float $pace = 1.0): array
    {
        [$fa, $sa, $ta, $scaleA] = $first;
        [$fb, $sb, $tb, $scaleB] = $second;
        $a = new Person($fa, $sa, $ta, new Placement([0.0, 0.0, 0.0], Q4::IDENTITY, $scaleA));
        $b = new Person($fb, $sb, $tb, new Placement([0.0, 0.0, $sheet['gap']], Q4::aroundY(M_PI), $scaleB));
        $m = new self($a, $b, $sheet, $ta->rate / $pace);
        $m->settle();
        $table = static fn (Person $p, ClipTable $t): ClipTable => ClipTable::fromRows(
            $t->rate,
            $t->joints,
            $t->morphs,
            $t->count,
            $p->rows(),
            $t->loops,
        );

        return [$table($a, $ta), self::moved($table($b, $tb), $fb, $m->shift, $scaleB), $m->miss];
    }

    /** @param  Vec  $shift  in the shared space */
    private static function moved(ClipTable $t, Figure $figure, array $shift, float $scale): ClipTable
    {
        $rows = [];
        $by = [-$shift[0] / $scale, -$shift[2] / $scale, 0.0];
        for ($f = 0; $f < $t->count; $f++) {
            array_push($rows, ...ClipTable::moved($t->row($f), $by, $figure->hips));
        }

        return ClipTable::fromRows($t->rate, $t->joints, $t->morphs, $t->count, $rows, $t->loops);
    }

    private function settle(): void
    {
        $frames = min($this->who['A']->frames, $this->who['B']->frames);
        $joins = array_map(fn (array $j): Join => new Join($this->who, $j, $this->rate), $this->sheet['together'] ?? []);
        if (isset($this->sheet['embrace'])) {
            (new Embrace($this->who, $this->sheet['embrace'], $this->rate, $frames))->settle($this->step(...));
        } elseif (isset($this->sheet['faces'])) {
            (new Faces($this->who, $this->sheet['faces'], $this->rate, $frames))->settle($this->step(...));
        } else {
            $this->standAndLend($frames, $joins);
        }
        if (isset($this->sheet['whirl'])) {
            (new Whirl($this->who, $this->sheet['whirl'], $this->rate, $frames))->settle();
        }
        foreach ($joins as $j) {
            $this->miss = max($this->miss, $j->settle($frames));
        }
        foreach ($this->touches as $t) {
            $contact = new Contact($this->who, $t, $this->rate);
            $this->miss = max($this->miss, ! $t->optional || $contact->reaches($frames) ? $contact->settle($frames) : 0.0);
        }
    }

    /**
     * Place first, then trunks; where bodies would be in each other they stand farther apart, and the trunks lend anew.
     *
     * @param  list<Join>  $joins
     */
    private function standAndLend(int $frames, array $joins): void
    {
        $trunks = new Trunks($this->who, $this->rate, $frames);
        $lend = function () use ($trunks, $joins): void {
            $trunks->lend($this->touches, $joins, $this->wrist(...));
        };
        $stoop = function () use ($trunks): void {
            foreach ($this->touches as $t) {
                $trunks->stoop($t);
            }
        };
        $stoop();
        $this->step([($this->sheet['aside'] ?? 0.0) * ($this->who['A']->size() + $this->who['B']->size()) / 2, 0.0, 0.0]);
        foreach ($joins as $j) {
            $this->step([0.0, 0.0, $this->limited($j->wanted())]);
        }
        if ($joins === []) {
            $this->stand();
        }
        $lend();
        for ($round = 0; $round < 2; $round++) {
            $by = $this->tooNear($frames, array_map(static fn (Join $j): Touch => $j->times(), $joins));
            if ($by <= 0.0) {
                return;
            }
            $this->step([0.0, 0.0, $by]);
            foreach ($this->who as $p) {
                $p->forget();
            }
            $stoop();
            $lend();
        }
    }

    /** @param  Vec  $by */
    private function step(array $by): void
    {
        $b = $this->who['B'];
        $b->place = new Placement(V3::add($b->place->position, $by), $b->place->rotation, $b->place->scale);
        $this->shift = V3::add($this->shift, $by);
    }

    /** A step along the line between the two, no longer than one step, and never into each other. */
    private function limited(float $by): float
    {
        $apart = $this->who['B']->at('hips', 0)[2] - $this->who['A']->at('hips', 0)[2];
        $least = self::APART * ($this->who['A']->size() + $this->who['B']->size()) / 2;

        return max(Ease::clamp($by, -self::STEP, self::STEP), $least - $apart);
    }

    /**
     * Metres by which bodies that would be in each other, at the touches or at the end, are to be farther apart.
     *
     * @param  list<Touch>  $joins
     */
    private function tooNear(int $frames, array $joins): float
    {
        $rows = [$frames - 1];
        foreach ([...$this->touches, ...$joins] as $t) {
            array_push($rows, (int) round($t->from * $this->rate), (int) round(($t->from + $t->until) / 2 * $this->rate));
            $rows[] = (int) round($t->until * $this->rate);
        }
        $gap = INF;
        foreach (array_unique($rows) as $f) {
            $gap = min($gap, Bodies::all($this->who['A'], $this->who['B'], min($frames - 1, $f)));
        }

        return $gap < self::CLEAR - 0.005 ? min(0.4, self::CLEAR - $gap) : 0.0;
    }

    /** Moves the second until the hand that has farthest to reach has it well in reach. */
    private function stand(): void
    {
        $arms = [];
        foreach ($this->touches as $t) {
            foreach ($t->strike ? [$t->from, $t->until] : [$t->from] as $time) {
                $f = (int) round($time * $this->rate);
                $p = $this->who[$t->by];
                $long = $p->armLength($t->hand) * ($t->strike ? self::STRUCK : self::WELL);
                $arms[] = [$this->wrist($t, $f), $p->at("upperArm{$t->hand}", $f), $long, $t->by === 'A' ? 1.0 : -1.0];
            }
        }
        if ($arms === []) {
            return;
        }
        [$low, $high] = [-self::STEP - 0.3, self::STEP + 0.3];
        for ($i = 0; $i < 20; $i++) {
            $by = ($low + $high) / 2;
            $worst = max(array_map(
                static fn (array $a): float => V3::distance(V3::add($a[0], [0.0, 0.0, $a[3] * $by]), $a[1]) / $a[2],
                $arms,
            ));
            $worst > 1.0 ? $high = $by : $low = $by;
        }
        $this->step([0.0, 0.0, $this->limited($low)]);
    }

    /** @return Vec where the wrist of a touching hand is to be */
    private function wrist(Touch $t, int $f): array
    {
        return (new Contact($this->who, $t, $this->rate))->aim($f)[0];
    }
}
