<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile;

use CrispReel\Core\Document\Expression;
use CrispReel\Core\Math\Ease;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Rig\FacePlayer;
use CrispReel\Core\Rig\Figure;
use CrispReel\Core\Rig\Posture;
use CrispReel\Core\Speech\Emotions;

/**
 * What a face does over whatever the body does: lips and jaw of what is said, brows and nods with its weight, what shows in it, and
 * that it listens. Works on any figure as far as it has shapes and a head; any frame, in any order, the same answer.
 */
final class FaceLayer
{
    /** Shapes that open, close or round the mouth: a mouth that speaks does what it says, and none of what a motion or a mood does. */
    private const SPOKEN = [
        'jawOpen', 'seal', 'press', 'lowerIn', 'upperUp', 'lowerDown', 'funnel', 'pucker', 'tongueUp', 'tongueOut', 'aa', 'oh', 'oo', 'mbp',
        'fv', 'el', 'ee', 'ih',
    ];

    /** Shapes that stay in part. */
    private const SHARED = [
        'stretchL', 'stretchR', 'cornerUpL', 'cornerUpR', 'cornerDownL', 'cornerDownR', 'sneerL', 'sneerR', 'chinUp', 'mouthL', 'mouthR',
    ];

    private const SHARE = 0.65;

    /** Seconds in which the one goes over into the other. */
    private const OVER = 0.2;

    private readonly FacePlayer $player;

    private readonly Accents $accents;

    /** Of the row: where the face begins. */
    private readonly int $first;

    /** @var array<int, float> columns of the face that a speaking mouth takes: what is left of them */
    private readonly array $left;

    /**
     * @param  list<Utterance>  $says
     * @param  list<Utterance>  $hears
     * @param  list<Expression>  $shows
     * @param  string  $resting  what shows while nothing else does
     */
    public function __construct(
        private readonly Figure $figure, private readonly array $says, private readonly array $hears, private readonly array $shows,
        private readonly string $resting, private readonly float $restingAmount, int $seed, private readonly float $perSecond,
    ) {
        $this->accents = new Accents($seed);
        $this->player = new FacePlayer($figure->morphs);
        $this->first = 3 + 4 * $figure->skeleton->count();
        $left = [];
        foreach (self::SHARED as $name) {
            $left += array_fill_keys(array_keys($this->player->of($name)), self::SHARE);
        }
        foreach (self::SPOKEN as $name) {
            foreach (array_keys($this->player->of($name)) as $k) {
                $left[$k] ??= 0.0;
            }
        }
        $this->left = $left;
    }

    /**
     * @param  list<float>  $row
     * @return list<float>
     */
    public function over(array $row, float $frame): array
    {
        $face = [];
        $held = [0.0, 0.0, 0.0, 0.0, 0.0];
        foreach ($this->moods($frame) as $emotion => $w) {
            self::show($face, $held, $emotion, $w);
        }
        foreach ($this->shows as $e) {
            $w = $e->weight($frame);
            foreach ($w > 0.0 ? $e->shapes : [] as $name => $v) {
                $face[$name] = ($face[$name] ?? 0.0) + $w * (is_int($v) || is_float($v) ? (float) $v : 0.0);
            }
        }
        foreach ($this->hears as $u) {
            $this->accents->heard($face, $held, $u, $u->seconds($frame));
        }
        $speaks = $this->speaking($frame);
        $row = $this->blended($row, $face, $speaks);
        if ($speaks > 0.0) {
            $row = $this->spoken($row, $held, $frame);
        }

        return $this->turned(array_values($row), $held);
    }

    /** @return array<string, float> emotions and how much of each shows; the resting one gives way to those that are set */
    private function moods(float $frame): array
    {
        $out = [];
        $most = 0.0;
        foreach ($this->shows as $e) {
            $w = $e->weight($frame);
            if ($w > 0.0 && $e->emotion !== Emotions::NONE) {
                $out[$e->emotion] = max($out[$e->emotion] ?? 0.0, $w);
                $most = max($most, $w);
            }
        }
        if ($this->resting !== Emotions::NONE) {
            $out[$this->resting] = max($out[$this->resting] ?? 0.0, $this->restingAmount * (1.0 - min(1.0, $most)));
        }

        return $out;
    }

    /**
     * @param  array<string, float>  $face
     * @param  array{float, float, float, float, float}  $held
     */
    public static function show(array &$face, array &$held, string $emotion, float $w): void
    {
        foreach (Emotions::shapes($emotion) as $name => $v) {
            $face[$name] = ($face[$name] ?? 0.0) + $w * $v;
        }
        foreach (Emotions::held($emotion) as $k => $deg) {
            $held[$k] += min(1.0, $w) * $deg;
        }
    }

    /** How much of the mouth is what is said, 0 to 1: all of it from before the first sound to after the last one. */
    private function speaking(float $frame): float
    {
        $most = 0.0;
        foreach ($this->says as $u) {
            [$from, $to] = [($frame - $u->start) / $this->perSecond + self::OVER, ($u->end - $frame) / $this->perSecond + self::OVER];
            $most = max($most, Ease::smooth(min($from, $to) / self::OVER));
        }

        return $most;
    }

    /**
     * Face of the motion and what shows over it; of a mouth that speaks what is left of both.
     *
     * @param  list<float>  $row
     * @param  array<string, float>  $face
     * @return array<int, float>
     */
    private function blended(array $row, array $face, float $speaks): array
    {
        $shown = $this->player->sums($face);
        for ($k = 0, $n = count($this->figure->morphs); $k < $n; $k++) {
            $left = 1.0 - $speaks * (1.0 - ($this->left[$k] ?? 1.0));
            $row[$this->first + $k] = Ease::clamp(($row[$this->first + $k] + ($shown[$k] ?? 0.0)) * $left, 0.0, FacePlayer::MOST);
        }

        return $row;
    }

    /**
     * @param  array<int, float>  $row
     * @param  array{float, float, float, float, float}  $held
     * @return array<int, float>
     */
    private function spoken(array $row, array &$held, float $frame): array
    {
        $face = [];
        foreach ($this->says as $u) {
            $t = $u->seconds($frame);
            if ($t < -0.5 || $t > $u->reading->seconds + 0.8) {
                continue;
            }
            foreach ($u->mouth->at($t) as $name => $v) {
                $face[$name] = max($face[$name] ?? 0.0, $v);
            }
            $this->accents->spoken($face, $held, $u, $t);
        }
        foreach ($this->player->sums($face) as $k => $v) {
            $row[$this->first + $k] = Ease::clamp($row[$this->first + $k] + $v, 0.0, FacePlayer::MOST);
        }

        return $row;
    }

    /**
     * Head and eyes as they are held; each by its own share of what the neck gives.
     *
     * @param  list<float>  $row
     * @param  array{float, float, float, float, float}  $held
     * @return list<float>
     */
    private function turned(array $row, array $held): array
    {
        if (max(array_map(abs(...), $held)) < 1e-3) {
            return $row;
        }
        $p = new Posture($this->figure->skeleton, $this->figure->hips, $row);
        $hips = $this->figure->hips;
        $about = Q4::mul($p->at($hips)[1], Q4::conjugate($this->figure->restTurn($hips)));
        foreach ([
            'neck' => [0.35, 0], 'head' => [0.65, 0], 'eyeL' => [1.0, 3], 'eyeR' => [1.0, 3],
        ] as $role => [$share, $of]) {
            $j = $this->figure->skeleton->roles[$role] ?? null;
            if ($j === null) {
                continue;
            }
            $turn = Q4::pitchYawRoll(
                deg2rad($share * $held[$of + 1]), deg2rad($share * $held[$of]), $of === 0 ? deg2rad($share * $held[2]) : 0.0,
            );
            $p->turn($j, Q4::mul(Q4::mul($about, Q4::mul($turn, Q4::conjugate($about))), $p->at($j)[1]));
        }

        return $p->result();
    }

    /** What the frames of a range are computed from. */
    public function fingerprint(int $from, int $to): string
    {
        $near = fn (Utterance $u): bool => $u->start - $this->perSecond < $to && $u->end + 2.5 * $this->perSecond > $from;
        $told = static fn (Utterance $u): string => $u->fingerprint();

        return json_encode([
            array_map($told, array_values(array_filter($this->says, $near))),
            array_map($told, array_values(array_filter($this->hears, $near))),
            array_map(static fn (Expression $e): array => array_diff_key($e->toArray(), ['id' => 0]), array_values(array_filter(
                $this->shows,
                static fn (Expression $e): bool => $e->from - $e->easeIn < $to && ($e->to === null || $e->to + $e->easeOut > $from),
            ))), $this->resting, $this->restingAmount,
        ], JSON_THROW_ON_ERROR);
    }
}
