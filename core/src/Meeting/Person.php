<?php

declare(strict_types=1);

namespace CrispReel\Core\Meeting;

use CrispReel\Core\Math\Placement;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;
use CrispReel\Core\Motion\ClipTable;
use CrispReel\Core\Rig\Figure;
use CrispReel\Core\Rig\Posture;

/**
 * One of two who meet, through all rows of a motion. Asked and answered in the space that both share: metres, the first stands in its
 * origin and looks along +Z.
 *
 * @phpstan-type Vec array{float, float, float}
 * @phpstan-type Quat array{float, float, float, float}
 */
final class Person
{
    /** Of a bend of the trunk, by joint. */
    private const SPINE = ['spine' => 0.36, 'chest' => 0.36, 'upperChest' => 0.28];

    /** @var array<int, Posture> */
    private array $postures = [];

    /** @var array<string, Vec> own points of hands */
    private array $palms = [];

    public readonly int $frames;

    public function __construct(
        public readonly Figure $figure,
        public readonly Skin $skin,
        private readonly ClipTable $table,
        public Placement $place,
    ) {
        $this->frames = $table->count;
    }

    /** How much larger than a person of 1.70 m. */
    public function size(): float
    {
        return $this->figure->body()->scale * $this->place->scale;
    }

    public function posture(int $f): Posture
    {
        return $this->postures[$f] ??= new Posture(
            $this->figure->skeleton,
            $this->figure->hips,
            $this->table->row(max(0, min($this->frames - 1, $f))),
        );
    }

    /** As the motion has it again. */
    public function forget(): void
    {
        $this->postures = [];
    }

    /** @return list<float> all rows, one after the other */
    public function rows(): array
    {
        $rows = [];
        for ($f = 0; $f < $this->frames; $f++) {
            $rows[] = isset($this->postures[$f]) ? $this->postures[$f]->result() : $this->table->row($f);
        }

        return array_merge(...$rows);
    }

    public function joint(string $role, int $f): Placement
    {
        $j = $this->figure->skeleton->joint($role);
        [$at, $turn] = $this->posture($f)->at($j ?? $this->figure->hips);
        $rest = $this->figure->restTurn($j ?? $this->figure->hips);

        // Turned as the body is: a joint at rest looks ahead whatever its own axes are.
        return $this->place->of(new Placement($at, Q4::mul($turn, Q4::conjugate($rest))));
    }

    /** @return Vec */
    public function at(string $role, int $f): array
    {
        return $this->joint($role, $f)->position;
    }

    /** @return array{int, int, int} */
    public function arm(string $side): array
    {
        return $this->figure->limb('arm', $side) ?? [0, 0, 0];
    }

    /** Metres from shoulder to wrist of a straight arm. */
    public function armLength(string $side): float
    {
        return array_sum($this->figure->lengths($this->arm($side))) * $this->place->scale;
    }

    /**
     * Turns a joint by a turn of the shared space, with all that hangs on it.
     *
     * @param  Quat  $by
     */
    public function turn(string $role, int $f, array $by): void
    {
        $j = $this->figure->skeleton->roles[$role] ?? null;
        if ($j !== null) {
            $q = $this->place->rotation;
            $own = Q4::mul(Q4::conjugate($q), Q4::mul($by, $q));
            $p = $this->posture($f);
            $p->turn($j, Q4::mul($own, $p->at($j)[1]));
        }
    }

    /**
     * Bends the trunk about an axis of the shared space, each joint by its share.
     *
     * @param  Vec  $axis  unit
     */
    public function bend(int $f, array $axis, float $angle): void
    {
        foreach (self::SPINE as $role => $share) {
            $this->turn($role, $f, Q4::axis($axis, $angle * $share));
        }
    }

    /**
     * Moves the hips; the feet stay where they are.
     *
     * @param  Vec  $by  in the shared space
     */
    public function shiftHips(int $f, array $by): void
    {
        $p = $this->posture($f);
        $feet = [];
        foreach (['L', 'R'] as $s) {
            $leg = $this->figure->limb('leg', $s);
            if ($leg !== null) {
                $feet[] = [$leg, $p->at($leg[2])];
            }
        }
        $p->shiftHips(V3::mul(Q4::rotate(Q4::conjugate($this->place->rotation), $by), 1 / $this->place->scale));
        $hips = Q4::mul($p->at($this->figure->hips)[1], Q4::conjugate($this->figure->restTurn($this->figure->hips)));
        foreach ($feet as [$leg, [$at, $turn]]) {
            $p->reach($leg[0], $leg[1], $leg[2], $at, $turn, Q4::rotate($hips, [1.0, 0.0, 0.0]));
        }
    }

    /** @return array{Vec, Vec} in the hand's own space: where the fingers point, where the palm looks */
    public function handAxes(string $side): array
    {
        $along = $this->figure->body()->side[$side]['lower'];

        return [$along, V3::across([$side === 'L' ? -1.0 : 1.0, -0.2, 0.0], $along)];
    }

    /**
     * The point of a hand that touches, in the hand's own space (metres of the figure): so far along it, on the skin of the palm.
     *
     * @param  float  $along  metres from the wrist, for a person of 1.70 m
     * @return Vec
     */
    public function palm(string $side, float $along): array
    {
        return $this->palms["{$side} {$along}"] ??= $this->palmAt($side, $along * $this->figure->body()->scale);
    }

    /** @return Vec */
    private function palmAt(string $side, float $along): array
    {
        [$a, $n] = $this->handAxes($side);
        $rest = new Posture($this->figure->skeleton, $this->figure->hips, [
            ...$this->figure->skeleton->restTranslation($this->figure->hips), ...$this->figure->skeleton->rotations,
        ]);
        [$wrist, $turn] = $rest->at($this->arm($side)[2]);
        $thick = 0.0;
        foreach ($this->skin->posed($this->skin->vertices(["hand{$side}"]), $rest) as $p) {
            $d = Q4::rotate(Q4::conjugate($turn), V3::sub($p, $wrist));
            if (abs(V3::dot($d, $a) - $along) < 0.02) {
                $thick = max($thick, V3::dot($d, $n));
            }
        }

        return V3::addScaled(V3::mul($a, $along), $n, $thick);
    }

    /**
     * Vertices in the shared space.
     *
     * @param  iterable<int>  $vertices
     * @return array<int, Vec>
     */
    public function drawn(iterable $vertices, int $f): array
    {
        return array_map($this->place->point(...), $this->skin->posed($vertices, $this->posture($f)));
    }

    /**
     * The surface of parts of the body, seen along a direction.
     *
     * @param  list<string>  $roles
     * @param  Vec  $centre
     * @param  Vec  $out
     */
    public function relief(array $roles, int $f, array $centre, array $out, float $half = 0.18, float $deep = 0.4): Relief
    {
        $patch = $this->skin->patch($roles);
        $corners = [];
        foreach ($patch as [$a, $b, $c]) {
            $corners[$a] = $corners[$b] = $corners[$c] = true;
        }

        return new Relief($this->drawn(array_keys($corners), $f), $patch, $centre, $out, $half, $deep);
    }

    /** @return list<string> joints of a hand with its fingers */
    public static function hand(string $side): array
    {
        $out = ["hand{$side}", "thumb1{$side}", "thumb2{$side}"];
        foreach (['index', 'middle', 'ring', 'little'] as $finger) {
            array_push($out, "{$finger}1{$side}", "{$finger}2{$side}");
        }

        return $out;
    }
}
