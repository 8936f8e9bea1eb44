<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile;

use CrispReel\Core\Camera\Marks;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;
use CrispReel\Core\Rig\Figure;

/**
 * Where those who are filmed are over time: eyes, hips and hands of people, the middle of things; as they are, and as an operator follows
 * them: the mean of what lies before and after, weighted by a bell curve, so that any frame can be asked for first.
 *
 * @phpstan-type Vec array{float, float, float}
 */
final class Whereabouts
{
    /** Frames from one look to the next; between two the way is straight. */
    private const STEP = 2;

    /** Frames of the bell's sigma: for what a camera turns to, for what it goes along with, and for hands, which are quicker. */
    private const SIGMA = [6.0, 14.0, 5.0, 5.0];

    /** The same for who is so near that a step shows. */
    private const NEAR = 3.0;

    /** Frames before and after that count: 2.5 sigmas of the wider bell. */
    public const REACH = 36;

    /** @var array<string, list<array{Vec, Vec, Vec, Vec}>> by item and stretch */
    private array $looks = [];

    /** @var array<string, array{Vec, Vec}> smoothed, by item and even frame */
    private array $smooth = [];

    /** @var array<string, array{Vec, Vec}> hardly smoothed, by item and even frame */
    private array $near = [];

    /** @var array<string, Vec> smoothed, by item, even frame and hand */
    private array $hands = [];

    /** @param  array<string, Vec>  $middles  of things, in their own space */
    public function __construct(
        private readonly Poses $poses,
        private readonly Memory $memory,
        private readonly int $frames,
        private readonly array $middles,
    ) {
    }

    /** @return array{Vec, Vec} what a camera turns to (eyes) and what it goes along with (hips) */
    public function smooth(string $item, float $frame): array
    {
        $low = self::STEP * (int) floor($frame / self::STEP);
        $t = ($frame - $low) / self::STEP;
        $a = $this->smoothed($item, $low);
        if ($t <= 0.0) {
            return $a;
        }
        $b = $this->smoothed($item, $low + self::STEP);

        return [V3::mix($a[0], $b[0], $t), V3::mix($a[1], $b[1], $t)];
    }

    /** @return array{Vec, Vec} the same as one follows who is near: hardly smoothed */
    public function near(string $item, float $frame): array
    {
        $low = self::STEP * (int) floor($frame / self::STEP);
        $at = fn (int $f): array => $this->near["{$item} {$f}"] ??= [
            $this->mean($item, $f, 0, self::NEAR), $this->mean($item, $f, 1, self::NEAR),
        ];
        [$a, $b, $t] = [$at($low), $at($low + self::STEP), ($frame - $low) / self::STEP];

        return [V3::mix($a[0], $b[0], $t), V3::mix($a[1], $b[1], $t)];
    }

    /**
     * @param  string  $part  "leftHand" or "rightHand"
     * @return Vec
     */
    public function hand(string $item, string $part, float $frame): array
    {
        $low = self::STEP * (int) floor($frame / self::STEP);
        $which = $part === 'leftHand' ? 2 : 3;
        $at = fn (int $f): array => $this->hands["{$item} {$f} {$which}"] ??= $this->mean($item, $f, $which);

        return V3::mix($at($low), $at($low + self::STEP), ($frame - $low) / self::STEP);
    }

    /** @return array{Vec, Vec} */
    private function smoothed(string $item, int $frame): array
    {
        return $this->smooth["{$item} {$frame}"] ??= [$this->mean($item, $frame, 0), $this->mean($item, $frame, 1)];
    }

    /** @return Vec */
    private function mean(string $item, int $frame, int $which, ?float $sigma = null): array
    {
        $sigma ??= self::SIGMA[$which];
        $sum = [0.0, 0.0, 0.0];
        $total = 0.0;
        $reach = self::STEP * (int) round(2.5 * $sigma / self::STEP);
        for ($by = -$reach; $by <= $reach; $by += self::STEP) {
            $w = exp(-0.5 * ($by / $sigma) ** 2);
            $sum = V3::addScaled($sum, $this->at($item, $frame + $by)[$which], $w);
            $total += $w;
        }

        return V3::mul($sum, 1 / $total);
    }

    /** @return array{Vec, Vec, Vec, Vec} eyes, hips, left and right hand at an even frame; before and after the scene as at its ends */
    private function at(string $item, int $frame): array
    {
        $last = max(0, $this->frames - 1);
        $k = intdiv(max(0, min($last - $last % self::STEP, $frame)), self::STEP);
        $each = intdiv(CompiledScene::PIECE, self::STEP);
        $n = intdiv($k, $each);
        $stretch = $this->looks["{$item} {$n}"] ??= $this->stretch($item, $n * CompiledScene::PIECE);

        return $stretch[$k - $n * $each];
    }

    /** @return list<array{Vec, Vec, Vec, Vec}> */
    private function stretch(string $item, int $from): array
    {
        return $this->memory->of(
            Memory::key('whereabouts', [
                $item, $from, $this->middles[$item] ?? null, $this->poses->grounds($item, $from, $from + CompiledScene::PIECE),
            ]),
            function () use ($item, $from): array {
                $out = [];
                for ($f = $from; $f < $from + CompiledScene::PIECE; $f += self::STEP) {
                    $out[] = $this->look($this->poses->at($f), $item);
                }

                return $out;
            },
        );
    }

    /** @return array{Vec, Vec, Vec, Vec} */
    private function look(Moment $moment, string $item): array
    {
        $figure = $this->poses->lanes[$item]->figure ?? null;
        $face = $figure === null ? null : self::faceOf($figure);
        if ($figure === null || $face === null) {
            $at = $moment->place($item)->point($this->middles[$item] ?? [0.0, 0.0, 0.0]);

            return [$at, $at, $at, $at];
        }

        $eyes = $moment->joint($item, $face[0])->point($face[1]);
        $hands = array_map(static fn (string $letter): array => self::handAt($moment, $item, $figure, $letter) ?? $eyes, ['L', 'R']);

        return [$eyes, $moment->joint($item, $figure->hips)->position, ...$hands];
    }

    /** @return Vec|null the middle of an open hand: as much farther than the wrist as forearms are long, by the third */
    private static function handAt(Moment $moment, string $item, Figure $figure, string $letter): ?array
    {
        $roles = $figure->skeleton->roles;
        [$elbow, $wrist] = [$roles["lowerArm{$letter}"] ?? null, $roles["hand{$letter}"] ?? null];
        if ($elbow === null || $wrist === null) {
            return null;
        }
        [$from, $at] = [$moment->joint($item, $elbow)->position, $moment->joint($item, $wrist)->position];

        return V3::addScaled($at, V3::sub($at, $from), Marks::HAND);
    }

    /** @return array{int, Vec, Vec}|null the joint of a head, the middle of its eyes and the way it looks, both in that joint's space */
    public static function faceOf(Figure $figure): ?array
    {
        $head = $figure->skeleton->roles['head'] ?? null;
        if ($head === null) {
            return null;
        }
        $eyes = array_values(array_filter([$figure->rest('eyeL'), $figure->rest('eyeR')]));
        $own = $figure->rest('head') ?? [0.0, 0.0, 0.0];
        $off = count($eyes) === 2 ? V3::sub(V3::mix($eyes[0], $eyes[1], 0.5), $own) : V3::mul([0.0, 0.055, 0.05], $figure->height());
        // The head's axes at rest are the figure's only where it has no turn of its own.
        $turn = Q4::conjugate($figure->restTurn($head));

        return [$head, Q4::rotate($turn, $off), Q4::rotate($turn, [0.0, 0.0, 1.0])];
    }
}
