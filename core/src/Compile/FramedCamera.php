<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile;

use CrispReel\Core\Camera\Aim;
use CrispReel\Core\Camera\CameraPose;
use CrispReel\Core\Camera\Films;
use CrispReel\Core\Camera\Gate;
use CrispReel\Core\Camera\ShotSize;
use CrispReel\Core\Document\Framing;
use CrispReel\Core\Geometry\Solids;
use CrispReel\Core\Math\Angle;
use CrispReel\Core\Math\Ease;
use CrispReel\Core\Math\V3;

/**
 * A camera that films somebody, over time: from each of its framings on it stands where that one was solved, turns or goes along
 * with its subject, and leads over to the next.
 *
 * @phpstan-type Vec array{float, float, float}
 */
final class FramedCamera implements Films
{
    /** @var list<array{float, float}> where in the picture each framing keeps its subject */
    private array $kept = [];

    /** @var list<Vec> where its subject's hips are at its own frame */
    private array $began = [];

    private readonly ?Boom $boom;

    /**
     * @param  list<array{Framing, Aim}>  $stretches  in the order of their frames, each with how it is solved at its own frame
     * @param  Solids|null  $walls  what it does not go through while it moves
     * @param  list<mixed>  $around  what tells those walls from others
     */
    public function __construct(
        private array $stretches, private readonly Gate $gate, private readonly Whereabouts $where, ?Solids $walls = null,
        private readonly array $around = [],
    ) {
        $this->boom = $walls === null || ! self::moves($stretches) ? null : new Boom($walls, fn (int $frame): array => [
            $this->centre($this->framing($frame), $frame), $this->led($frame)[0]->position,
        ]);
        foreach ($stretches as $n => [$f, $aim]) {
            $before = $stretches[$n - 1][0] ?? null;
            // What only goes aside goes from where it stands by then, not from where she would be framed anew.
            if ($before !== null && $f->likeBut($before, ['shift', 'keep', 'focus', 'fStop'])) {
                $aim = $this->aim($n - 1, $f->frame)->shifted(V3::sub($f->shift, $before->shift));
                $this->stretches[$n][1] = $aim;
            }
            [$x, $y] = $aim->project($this->centre($f, $f->frame), $gate);
            $this->kept[] = [$x, $y];
            $this->began[] = $where->smooth($f->subject, $f->frame)[1];
        }
    }

    /**
     * Whether it ever moves: goes along with somebody, or is led from one framing to another.
     *
     * @param  list<array{Framing, Aim}>  $stretches
     */
    public static function moves(array $stretches): bool
    {
        return array_filter($stretches, static fn (array $s): bool => $s[0]->keep === 'follow' || $s[0]->over > 0) !== [];
    }

    public function at(float $frame): CameraPose
    {
        [$aim, $sharp, $fStop] = $this->led($frame);
        $share = $this->boom === null ? 1.0 : $this->boom->share($frame);
        if ($share < 0.999) {
            $framing = $this->framing($frame);
            $centre = $this->centre($framing, $frame);
            [$x, $y] = $aim->project($centre, $this->gate);
            // The nearer it comes, the more closely it turns along.
            $turns = V3::mix($this->centre($framing, $frame, true), $centre, $share);
            $aim = Aim::at(V3::mix($centre, $aim->position, $share), $turns, $x, $y, $aim->focalMm, $this->gate);
        }

        return $aim->pose($this->gate, $sharp, $fStop);
    }

    /** @return array{Aim, Vec, float} where it is led to at a frame, whatever stands there, what is sharp, and the aperture */
    private function led(float $frame): array
    {
        $n = 0;
        foreach ($this->stretches as $i => [$f]) {
            $n = $f->frame <= $frame ? $i : $n;
        }
        [$framing] = $this->stretches[$n];
        $aim = $this->aim($n, $frame);
        $fStop = $framing->fStop;
        $sharp = $this->sharp($framing, $frame);
        if ($n > 0 && $framing->over > 0 && $frame < $framing->frame + $framing->over) {
            $t = Ease::named($framing->ease === 'hold' ? 'inOut' : $framing->ease, ($frame - $framing->frame) / $framing->over);
            [$from] = $this->stretches[$n - 1];
            $aim = $this->between($n, $frame, $aim, $t);
            $fStop = Ease::mix($from->fStop, $fStop, $t);
            $sharp = V3::mix($this->sharp($from, $frame), $sharp, $t);
        }

        return [$aim, $sharp, $fStop];
    }

    /** The framing that holds at a frame; on the way to one it holds already. */
    public function framing(float $frame): Framing
    {
        $found = $this->stretches[0][0];
        foreach ($this->stretches as [$f]) {
            $found = $f->frame <= $frame ? $f : $found;
        }

        return $found;
    }

    /** What stretch $n comes to at a frame. */
    private function aim(int $n, float $frame): Aim
    {
        [$f, $aim] = $this->stretches[$n];
        // Only something else becomes sharp: nothing of the camera moves.
        if ($n > 0 && $f->likeBut($this->stretches[$n - 1][0], ['focus', 'fStop'])) {
            return $this->aim($n - 1, $frame);
        }
        if ($f->keep === 'still') {
            return $aim;
        }
        $position = $aim->position;
        if ($f->keep === 'follow') {
            $way = V3::sub($this->where->smooth($f->subject, $frame)[1], $this->began[$n]);
            $position = V3::add($position, $way);
        }

        return Aim::at($position, $this->centre($f, $frame), $this->kept[$n][0], $this->kept[$n][1], $aim->focalMm, $this->gate);
    }

    /** On the way from the framing before to this one: on an arc round the subject, its place in the picture led over. */
    private function between(int $n, float $frame, Aim $to, float $t): Aim
    {
        [$f] = $this->stretches[$n];
        [$before] = $this->stretches[$n - 1];
        $from = $this->aim($n - 1, $frame);
        $lens = exp(Ease::mix(log($from->focalMm), log($to->focalMm), $t));
        $centre = V3::mix($this->centre($before, $frame), $this->centre($f, $frame), $t);
        // To somebody else, or aside: straight. Round the same one: on an arc.
        if ($before->subject !== $f->subject || $f->likeBut($before, ['shift', 'keep', 'focus', 'fStop'])) {
            $yaw = $from->yaw + $t * Angle::wrapped($to->yaw - $from->yaw);

            return new Aim(V3::mix($from->position, $to->position, $t), $yaw, Ease::mix($from->pitch, $to->pitch, $t), $lens);
        }
        [$a, $b] = [V3::sub($from->position, $centre), V3::sub($to->position, $centre)];
        $turn = atan2($a[0], $a[2]) + $t * Angle::wrapped(atan2($b[0], $b[2]) - atan2($a[0], $a[2]));
        $far = exp(Ease::mix(log(max(0.05, hypot($a[0], $a[2]))), log(max(0.05, hypot($b[0], $b[2]))), $t));
        $position = [$centre[0] + $far * sin($turn), $centre[1] + Ease::mix($a[1], $b[1], $t), $centre[2] + $far * cos($turn)];
        [$ax, $ay] = $from->project($centre, $this->gate);
        [$bx, $by] = $to->project($centre, $this->gate);

        return Aim::at($position, $centre, Ease::mix($ax, $bx, $t), Ease::mix($ay, $by, $t), $lens, $this->gate);
    }

    /** @return Vec what a framing keeps in its place: the eyes of who is near, the body of who is seen whole, the middle of several */
    private function centre(Framing $f, float $frame, bool $near = false): array
    {
        $at = $near ? $this->where->near(...) : $this->where->smooth(...);
        [$eyes, $hips] = $at($f->subject, $frame);
        if ($f->kind === 'together') {
            return V3::mean(array_map(static fn (string $who): array => $at($who, $frame)[0], $f->people()));
        }
        if ($f->kind === 'single' && $f->part !== 'face') {
            return $this->where->hand($f->subject, $f->part, $frame);
        }

        return ShotSize::number($f->size) >= 3 || $f->kind === 'overShoulder' ? $eyes : V3::mix($eyes, $hips, 0.5);
    }

    /** @return Vec */
    private function sharp(Framing $f, float $frame): array
    {
        return $f->focus === null && $f->kind === 'single' && $f->part !== 'face'
            ? $this->where->hand($f->subject, $f->part, $frame)
            : $this->where->smooth($f->focus ?? $f->subject, $frame)[0];
    }

    /** @return list<string> whom it films */
    public function subjects(): array
    {
        $out = [];
        foreach ($this->stretches as [$f]) {
            array_push($out, ...$f->people(), ...($f->focus === null ? [] : [$f->focus]));
        }

        return array_values(array_unique($out));
    }

    /** @return list<mixed> what it is computed from besides where its subjects are */
    public function fingerprint(): array
    {
        return [$this->around, ...array_map(static fn (array $s, array $kept, array $began): array => [
            array_diff_key($s[0]->toArray(), ['id' => 0, 'camera' => 0]),
            array_map(static fn (float $v): float => round($v, 6), [...$s[1]->flat(), ...$kept, ...$began]),
        ], $this->stretches, $this->kept, $this->began)];
    }
}
