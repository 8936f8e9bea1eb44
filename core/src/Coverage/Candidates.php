<?php

declare(strict_types=1);

namespace CrispReel\Core\Coverage;

use Closure;
use CrispReel\Core\Camera\Aim;
use CrispReel\Core\Camera\Framer;
use CrispReel\Core\Camera\ShotSize;
use CrispReel\Core\Compile\FramedCamera;
use CrispReel\Core\Compile\Whereabouts;
use CrispReel\Core\Document\Framing;

/** The set-ups of an action: a master, what suits each pair while it stands, who travels, and what changes hands. */
final class Candidates
{
    /** Metres that two may stand apart to be taken together. */
    private const APART = 4.5;

    /** Frames before and after something changes hands that an insert holds. */
    private const HANDS = [24, 20];

    /** @var list<Candidate> */
    private array $found = [];

    /** @var array<string, float> sides of lines that are kept, by the two */
    private array $sides = [];

    /** @param  Closure(int): Stand  $at  the scene at a frame */
    public function __construct(private readonly Action $action, private readonly Closure $at, private readonly Whereabouts $where)
    {
    }

    /** @return list<Candidate> */
    public function all(): array
    {
        $this->found = [];
        foreach ($this->action->pairs() as [$a, $b]) {
            foreach ($this->action->stations($a, $b) as [$from, $to]) {
                $this->pair($a, $b, $from, $to);
            }
        }
        $this->masters();
        foreach ($this->action->travels as [$from, $to, $who]) {
            $this->travel($who, $from, $to);
        }
        foreach ($this->action->gives as [$frame, $thing, $giver, $taker]) {
            $this->insert($frame, $thing, $giver, $taker);
        }
        $this->alone();

        return $this->found;
    }

    /** All who take part, from where they stand at a few moments; three and more who stand together nearer, too. */
    private function masters(): void
    {
        $a = $this->action;
        $third = intdiv($a->to - $a->from, 3) + 48;
        foreach (array_unique([$a->from + 12, intdiv($a->from + $a->to, 2), max($a->from, $a->to - 24)]) as $frame) {
            [$from, $to] = [max($a->from, $frame - $third), min($a->to, $frame + $third)];
            if (count($a->people) < 2) {
                $alone = $this->framing($a->people[0], $frame, ['size' => 'wide', 'sideDeg' => 20.0, 'focalMm' => 32.0]);
                $this->add('master', 'All', $alone, $a->people, 0.6, $from, $to);

                continue;
            }
            $stand = ($this->at)($frame);
            [$one, $other] = (new Group($stand, $a->people))->ends();
            $all = [
                'partner' => $other, 'others' => array_values(array_diff($a->people, [$one, $other])), 'kind' => 'together',
                'sideDeg' => 90.0 * $this->side($one, $other, $frame),
            ];
            $wide = $this->framing($one, $frame, $all + ['size' => 'wide', 'focalMm' => 32.0]);
            $this->add('master', 'All', $wide, $a->people, 0.6, $from, $to);
            [$p, $q] = [$stand->marks($one)->middle('eyes'), $stand->marks($other)->middle('eyes')];
            if ($all['others'] !== [] && hypot($p[0] - $q[0], $p[2] - $q[2]) < self::APART) {
                $near = $this->framing($one, $frame, $all + ['size' => 'medium', 'focalMm' => 40.0]);
                $this->add('two', 'All, to the belt', $near, $a->people, 2.7, $from, $to);
            }
        }
    }

    private function pair(string $a, string $b, int $from, int $to): void
    {
        $frame = $this->moment($a, $b, $from, $to);
        $hand = $this->side($a, $b, $frame);
        $stand = ($this->at)($frame);
        [$p, $q] = [$stand->marks($a)->middle('eyes'), $stand->marks($b)->middle('eyes')];
        if (hypot($p[0] - $q[0], $p[2] - $q[2]) > self::APART) {
            return;
        }
        [$na, $nb] = [$stand->name($a), $stand->name($b)];
        foreach ([[$a, $b, $hand, $na, $nb], [$b, $a, -$hand, $nb, $na]] as [$s, $l, $side, $ns, $nl]) {
            $with = ['partner' => $l];
            $this->add('over', "{$ns}, over {$nl}", $this->framing($s, $frame, $with + [
                'kind' => 'overShoulder', 'sideDeg' => 30.0 * $side,
            ]), [$s], 2.8, $from, $to);
            foreach (['mediumCloseUp' => [32.0, 65.0], 'closeUp' => [24.0, 75.0]] as $size => [$off, $lens]) {
                $this->add('single', "{$ns}, ".lcfirst(SetUps::TITLES[$size]), $this->framing($s, $frame, $with + [
                    'size' => $size, 'sideDeg' => $off * $side, 'focalMm' => $lens,
                ]), [$s], (float) ShotSize::number($size), $from, $to);
            }
        }
        foreach (['medium' => [2.7, 40.0], 'full' => [1.2, 35.0]] as $size => [$number, $lens]) {
            $this->add('two', "{$na} and {$nb}".($size === 'full' ? ', whole' : ''), $this->framing($a, $frame, [
                'partner' => $b, 'kind' => 'together', 'size' => $size, 'sideDeg' => 90.0 * $hand, 'focalMm' => $lens,
            ]), [$a, $b], $number, $from, $to);
        }
    }

    private function travel(string $who, int $from, int $to): void
    {
        $frame = intdiv($from + $to, 2);
        $name = ($this->at)($frame)->name($who);
        foreach ([
            ['with', 'turn', 60.0, 'full', 40.0, 1.0], ['beside', 'follow', 70.0, 'full', 35.0, 1.0],
            ['before', 'follow', 25.0, 'threeQuarter', 40.0, 2.0],
        ] as [$way, $keep, $side, $size, $lens, $number]) {
            $this->add('travel', "{$name} on the way, ".$way, $this->framing($who, $frame, [
                'size' => $size, 'sideDeg' => $side, 'focalMm' => $lens, 'keep' => $keep,
            ]), [$who], $number, max($this->action->from, $from - 12), min($this->action->to, $to + 24));
        }
    }

    private function insert(int $frame, string $thing, string $giver, string $taker): void
    {
        $stand = ($this->at)($frame);
        [$from, $to] = [max($this->action->from, $frame - self::HANDS[0]), min($this->action->to, $frame + self::HANDS[1])];
        // Seen from where the camera on both stands.
        $side = 90.0 * $this->side($giver, $taker, $frame);
        [$p, $q] = [$stand->marks($giver)->middle('eyes'), $stand->marks($taker)->middle('eyes')];
        $heading = rad2deg(atan2($q[0] - $p[0], $q[2] - $p[2]) - $stand->marks($thing)->facing);
        $this->add('insert', "{$stand->name($thing)} changes hands", $this->framing($thing, $frame, [
            'size' => 'full', 'sideDeg' => fmod($heading + 0.7 * $side + 540.0, 360.0) - 180.0, 'height' => 'high', 'focalMm' => 65.0,
        ]), [$giver, $taker], 4.6, $from, $to);
    }

    /** Who does something and belongs to no pair. */
    private function alone(): void
    {
        $paired = array_merge([], ...$this->action->pairs());
        foreach (array_diff($this->action->people, $paired) as $who) {
            $frame = $this->action->acts[0][0] ?? intdiv($this->action->from + $this->action->to, 2);
            $name = ($this->at)($frame)->name($who);
            foreach (['medium' => 50.0, 'closeUp' => 75.0] as $size => $lens) {
                $this->add('single', "{$name}, ".lcfirst(SetUps::TITLES[$size]), $this->framing($who, $frame, [
                    'size' => $size, 'sideDeg' => 30.0, 'focalMm' => $lens,
                ]), [$who], (float) ShotSize::number($size), $this->action->from, $this->action->to);
            }
        }
    }

    /**
     * @param  "master"|"two"|"over"|"single"|"travel"|"insert"  $role
     * @param  list<string>  $about
     */
    private function add(string $role, string $title, Framing $framing, array $about, float $size, int $from, int $to): void
    {
        $stand = ($this->at)($framing->frame);
        $proposal = $stand->propose('cut', $title, $framing);
        if ($proposal->view === null) {
            return;
        }
        $f = $proposal->framing;
        $aim = Framer::solve($f, $stand->marks($f->subject), array_map($stand->marks(...), $f->with()), $stand->gate);
        if ($aim instanceof Aim) {
            $camera = new FramedCamera([[$f, $aim]], $stand->gate, $this->where);
            $this->found[] = new Candidate($role, $title, $f, $camera, $about, $size, $from, $to);
        }
    }

    /** @param  array<string, mixed>  $values */
    private function framing(string $subject, int $frame, array $values): Framing
    {
        return Tries::with(new Framing('f0', 'c0', $subject, frame: $frame), $values);
    }

    /** The middle of the first line between two in a span; of the span, where there is none. */
    private function moment(string $a, string $b, int $from, int $to): int
    {
        foreach ($this->action->lines as [$first, $last, $who]) {
            if (($who === $a || $who === $b) && $last > $from && $first < $to) {
                return intdiv(max($first, $from) + min($last, $to), 2);
            }
        }

        return intdiv($from + $to, 2);
    }

    /**
     * The side of the line between two that is kept: the one of cameras so far, or else where more of both is seen and more lies
     * behind them. 1: to the left of the first, looking at the other.
     */
    private function side(string $a, string $b, int $frame): float
    {
        $turned = $a > $b ? -1.0 : 1.0;
        [$p, $q] = $a > $b ? [$b, $a] : [$a, $b];
        $stand = ($this->at)($frame);
        $this->sides["{$p} {$q}"] ??= SetUps::kept($stand->scene->document, $p, $q)
            ?? $stand->side($this->framing($p, $frame, ['partner' => $q]));

        return $turned * $this->sides["{$p} {$q}"];
    }
}
