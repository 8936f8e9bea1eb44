<?php

declare(strict_types=1);

namespace CrispReel\Core\Motion\Model;

use CrispReel\Core\Math\MonotoneTrack;
use CrispReel\Core\Rig\ArmPose;

/**
 * Keyed arm poses whose joints follow one another: the girdle leads, fingers come last (seconds of lag a joint).
 *
 * @phpstan-type Key list<float>
 */
final class ArmTrack
{
    /** flex, abduct, inward, elbow, pronate, wrist, deviate, curl, lift, forward, point, thumb: degrees, fingers in radians */
    public const POSES = [
        'rest' => [-3, 9, 12, 24, 2, 4, 0, 0.8, -1.5, 3, 0, 0.3],
        'low' => [12, 13, 26, 62, 12, 8, 0, 0.7, 0, 4, 0, 0.3],
        'middle' => [20, 18, 30, 92, 20, 10, 4, 0.6, 1, 4, 0, 0.3],
        'in' => [26, 16, 52, 98, 35, 14, 0, 0.6, 1.5, 7, 0, 0.3],
        'offer' => [30, 12, 16, 66, -52, -8, 0, 0.24, 1, 9, 0, 0.0],
        'beat' => [26, 12, 26, 72, 12, -4, -8, 0.42, 0, 6, 0, 0.2],
        'wide' => [22, 34, -12, 58, -38, -14, 0, 0.16, 2, -2, 0, -0.2],
        'tick' => [34, 16, 22, 104, 18, -4, 8, 1.35, 1, 6, 1.35, 0.7],
        'chest' => [24, 20, 66, 112, 34, 10, 0, 0.3, 2, 10, 0, 0.2],
        'aside' => [18, 30, -2, 66, 30, -18, 0, 0.2, 1, 0, 0, 0],
        'you' => [42, 10, 8, 42, -30, -6, 0, 0.2, 1, 10, 0, 0.0],
        'gather' => [32, 22, 34, 84, -20, 4, 0, 0.3, 1, 6, 0, 0.1],
        'point' => [55, 10, 2, 26, 25, 0, 0, 1.3, 2, 10, 1.3, 0.6],
        'down' => [28, 14, 18, 62, 46, 22, 0, 1.2, 0, 6, 1.3, 0.6],
        'up' => [58, 20, 2, 98, 6, -6, 0, 1.3, 3, 6, 1.35, 0.6],
        'press' => [26, 18, 16, 58, 66, -10, 0, 0.12, -1, 5, 0, 0.1],
        'pinch' => [36, 14, 24, 100, 10, -10, 4, 0.95, 1, 6, 0.35, 0.9],
        'across' => [28, 16, 54, 88, 56, 0, 0, 0.2, 0, 6, 0, 0.1],
        'cut' => [24, 40, -18, 52, 58, -4, 0, 0.15, 1, -2, 0, 0.0],
        'stop' => [52, 14, 6, 66, 32, -46, 0, 0.08, 2, 9, 0, 0.0],
        'away' => [34, 48, -26, 36, -8, -10, 0, 0.25, 3, -2, 0, -0.1],
        'fist' => [36, 16, 20, 104, -6, 0, 0, 1.5, 1, 6, 0, 0.8],
        'temple' => [62, 44, 34, 134, 26, 0, 0, 1.15, 3, 4, 1.2, 0.5],
        'ear' => [52, 60, -8, 136, 10, -8, 0, 0.4, 4, 0, 0, 0.1],
        'eyes' => [62, 26, 34, 130, 26, 6, 0, 1.2, 2, 6, 1.25, 0.5],
        'shrug' => [16, 30, -8, 76, -62, -14, 0, 0.2, 11, 0, 0, -0.1],
        'plead' => [38, 14, 34, 86, -14, -6, 0, 0.12, 3, 10, 0, 0.0],
        'watch' => [36, 26, 48, 98, 62, 6, 0, 0.5, 1, 6, 0, 0.3],
        'over' => [44, 50, -34, 128, -16, -6, 0, 1.2, 3, -4, 0, -0.3],
        'slack' => [4, 6, 16, 12, 4, 2, 0, 0.6, -5, 10, 0, 0.2],
        'akimbo' => [-16, 44, 34, 96, 30, 30, 0, 0.5, 1, -6, 0, -0.2],
        'folded' => [30, 14, 78, 106, 30, 6, 0, 0.5, 1, 10, 0, 0.2],
        'hugging' => [34, 12, 74, 112, 20, 10, 0, 0.3, 8, 12, 0, 0.2],
        'behind' => [-24, 20, 40, 46, -30, -10, 0, 0.5, -1, -8, 0, 0.2],
        'cheer' => [150, 26, 10, 22, 0, -4, 0, 1.4, 8, 4, 0, 0.6],
        'proud' => [-8, 18, 4, 22, 0, 0, 0, 0.9, -1, -6, 0, 0.4],
        'brace' => [34, 40, 10, 40, 40, -30, 0, 0.1, 4, 6, 0, -0.2],
        'fling' => [20, 78, -20, 26, -20, -10, 0, 0.15, 6, -2, 0, -0.2],
        'back' => [-42, 22, 8, 20, 0, 0, 0, 0.5, 2, -6, 0, 0.2],
        'lap' => [20, 8, 20, 54, 44, 4, 0, 0.4, 0, 4, 0, 0.2],
        'beckon' => [40, 18, 20, 66, -50, -24, 0, 0.15, 2, 6, 0, 0.0],
        'beckonIn' => [42, 16, 26, 104, -46, 16, 0, 1.1, 2, 6, 0, 0.2],
        'run' => [-6, 12, 10, 86, 6, 0, 0, 1.2, 0, 0, 0, 0.5],
        'throwBack' => [40, 84, -88, 96, 10, -20, 0, 1.1, 6, -8, 0, 0.5],
        'threw' => [60, 10, 30, 24, 30, 10, 0, 0.3, 2, 12, 0, 0.0],
        'side' => [10, 82, 0, 14, 10, -4, 0, 0.3, 3, 0, 0, 0.0],
        'curve' => [52, 46, 30, 52, 20, 0, 0, 0.3, 2, 6, 0, 0.0],
        'windUp' => [8, 14, 10, 128, 30, -44, 0, 0.1, 1, -10, 0, -0.1],
        'swing' => [28, 78, -70, 62, 10, -14, 0, 0.12, 4, -10, 0, -0.1],
        'cocked' => [-14, 34, 20, 122, -4, 0, 0, 1.5, 3, -10, 0, 0.8],
        'waveUp' => [18, 66, -84, 100, 15, -6, 0, 0.12, 6, 0, 0, -0.2],
    ];

    private const LAG = [0, 0, 0.015, 0.05, 0.06, 0.085, 0.085, 0.11, -0.03, -0.02, 0.11, 0.11];

    /** @var list<MonotoneTrack> */
    private array $tracks = [];

    /** @param  list<array{float, Key}>  $keys time and pose, times rising */
    public function __construct(array $keys)
    {
        $times = array_column($keys, 0);
        for ($i = 0; $i < 12; $i++) {
            $this->tracks[] = new MonotoneTrack($times, array_map(static fn (array $k): array => [(float) $k[1][$i]], $keys));
        }
    }

    public function at(float $t): ArmPose
    {
        $v = [];
        foreach ($this->tracks as $i => $track) {
            $v[] = $track->at($t - self::LAG[$i])[0];
        }

        return ArmPose::fromKey($v);
    }

    /** @return Key */
    public static function pose(string $name): array
    {
        return array_map(floatval(...), self::POSES[$name]);
    }

    /**
     * @param  Key  $a
     * @param  Key  $b
     * @return Key
     */
    public static function mix(array $a, array $b, float $t): array
    {
        return array_map(static fn (float $x, float $y): float => $x + ($y - $x) * $t, $a, $b);
    }

    /**
     * A row of strokes: preparation, pre-hold with a small counter-move, a fast stroke that overshoots by 8 %, a hold
     * that sags, and a return, unless the next stroke is near.
     *
     * @param  list<array{t: float, from: string, to: string, times: int, hold: float, seconds: float, size: float}>  $strokes
     */
    public static function phrase(array $strokes): self
    {
        $rest = self::pose('rest');
        $keys = [[-9.0, $rest], [$strokes === [] ? 0.0 : max(0.0, $strokes[0]['t'] - 0.42), $rest]];
        foreach ($strokes as $i => $s) {
            $a = self::pose($s['from']);
            $b = self::mix($a, self::pose($s['to']), $s['size']);
            $t = $s['t'];
            array_push($keys, [$t - 0.06, $a], [$t, self::mix($a, $b, -0.07)]);
            $t += $s['seconds'];
            array_push($keys, [$t, self::mix($a, $b, 1.08)], [$t + 0.13, self::mix($a, $b, 0.97)]);
            for ($k = 1; $k < $s['times']; $k++) {
                array_push($keys, [$t + 0.25, self::mix($a, $b, 0.62)], [$t + 0.42, self::mix($a, $b, 1.04)]);
                $t += 0.29;
            }
            $end = $t + 0.13 + $s['hold'];
            $keys[] = [$end, self::mix(self::mix($a, $b, 0.93), $rest, 0.05)];
            $next = $strokes[$i + 1]['t'] ?? null;
            if ($next === null || $next - 0.42 - $end > 0.45) {
                $keys[] = [$end + 0.62, $rest];
            }
            if ($next !== null && $next - 0.42 > $end + 0.62) {
                $keys[] = [$next - 0.42, $rest];
            }
        }
        $keys[] = [$keys[count($keys) - 1][0] + 9.0, $rest];
        $rising = [];
        foreach ($keys as $key) {
            if ($rising === [] || $key[0] > $rising[count($rising) - 1][0] + 0.02) {
                $rising[] = $key;
            }
        }

        return new self($rising);
    }
}
