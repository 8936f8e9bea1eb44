<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile;

use CrispReel\Core\Math\Ease;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Motion\Blinks;
use CrispReel\Core\Rig\FacePlayer;
use CrispReel\Core\Rig\Figure;

/** Somebody's lids, laid over all else: they blink, and go with the eyes up and down; where somebody has keyed them they do neither. */
final class Eyes
{
    /** Degrees down at which lids would be shut by the look alone, and up at which eyes would be wide; and how far they go. */
    private const DOWN = [50.0, 0.45];

    private const UP = [40.0, 0.45];

    /** @var array<int, float> columns of the row that shut the lids, with their shares */
    private readonly array $lids;

    /** @var array<int, array{float, int}> columns of wide eyes: their share, and the lid of their side */
    private readonly array $wide;

    /** @var list<int> eyes that hang on the head */
    private readonly array $eyes;

    /** @param  list<array{float, float}>  $keyed  spans, in seconds, in which somebody has keyed lids */
    public function __construct(
        private readonly Figure $figure, private readonly ?Blinks $blinks, public readonly ?Glances $glances, private readonly array $keyed,
        private readonly float $perSecond,
    ) {
        $player = new FacePlayer($figure->morphs);
        $first = 3 + 4 * $figure->skeleton->count();
        $lids = $wide = [];
        foreach (['L', 'R'] as $side) {
            foreach ($player->of("blink{$side}") as $k => $share) {
                $lids[$first + $k] = min(1.0, ($lids[$first + $k] ?? 0.0) + $share);
                foreach ($player->of("wide{$side}") as $w => $of) {
                    $wide[$first + $w] = [$of, $first + $k];
                }
            }
        }
        [$this->lids, $this->wide] = [$lids, $wide];
        $r = $figure->skeleton->roles;
        $this->eyes = array_values(array_filter(
            array_intersect_key($r, ['eyeL' => 1, 'eyeR' => 1]),
            static fn (int $j): bool => isset($r['head']) && $figure->skeleton->parents[$j] === $r['head'],
        ));
    }

    /**
     * @param  list<float>  $row
     * @return list<float>
     */
    public function over(array $row, float $frame): array
    {
        $t = $frame / $this->perSecond;
        $isKeyed = array_filter($this->keyed, static fn (array $k): bool => $t >= $k[0] && $t <= $k[1]) !== [];
        $down = $isKeyed ? 0.0 : $this->down($row);
        $blink = $this->blinks?->at($t) ?? 0.0;
        $low = Ease::clamp($down / self::DOWN[0], 0.0, self::DOWN[1]);
        $high = Ease::clamp(-$down / self::UP[0], 0.0, self::UP[1]);
        foreach ($this->lids as $k => $share) {
            $row[$k] = max($row[$k] + $share * $low * max(0.0, 1.0 - $row[$k]), $share * $blink);
        }
        foreach ($this->wide as $k => [$share, $lid]) {
            // A wide eye would never shut.
            $row[$k] = ($row[$k] + $share * $high * max(0.0, 1.0 - $row[$k])) * (1.0 - min(1.0, $row[$lid]));
        }

        return array_values($row);
    }

    /**
     * Degrees that eyes look down, against the head.
     *
     * @param  list<float>  $row
     */
    private function down(array $row): float
    {
        $sum = 0.0;
        foreach ($this->eyes as $j) {
            $o = 3 + 4 * $j;
            $turn = Q4::mul([$row[$o], $row[$o + 1], $row[$o + 2], $row[$o + 3]], Q4::conjugate($this->figure->restTurn($j)));
            $ahead = Q4::rotate($this->figure->restTurn($this->figure->skeleton->parents[$j]), Q4::rotate($turn, [0.0, 0.0, 1.0]));
            $sum -= rad2deg(asin(Ease::clamp($ahead[1], -1.0, 1.0)));
        }

        return $this->eyes === [] ? 0.0 : $sum / count($this->eyes);
    }

    /**
     * What the frames of a range are computed from.
     *
     * @return list<mixed>
     */
    public function fingerprint(int $from, int $to): array
    {
        [$a, $b] = [$from / $this->perSecond, $to / $this->perSecond];

        return [
            $this->blinks?->within($a, $b) ?? [], self::cut($this->keyed, $a, $b),
            self::cut($this->glances?->spans() ?? [], $a - 1.0, $b),
        ];
    }

    /**
     * @param  list<array{float, float}>  $spans
     * @return list<array{float, float}> as far as they lie in a span
     */
    private static function cut(array $spans, float $from, float $to): array
    {
        $in = array_filter($spans, static fn (array $s): bool => $s[0] < $to && $s[1] > $from);

        return array_values(array_map(static fn (array $s): array => [max($from, $s[0]), min($to, $s[1])], $in));
    }
}
