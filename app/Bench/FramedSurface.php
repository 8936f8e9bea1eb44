<?php

declare(strict_types=1);

namespace App\Bench;

use CrispReel\Core\Camera\Aim;
use CrispReel\Core\Camera\Gate;
use CrispReel\Core\Camera\SkinnedSurface;
use CrispReel\Core\Format\Gltf\GltfReader;
use CrispReel\Core\Math\Placement;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;
use CrispReel\Core\Rig\Figure;

/**
 * All drawn vertices of a figure in a pose, and where its lines are seen: worked out from them alone, with a projection of its own,
 * to hold the framing against.
 *
 * @phpstan-type Vec array{float, float, float}
 */
final class FramedSurface
{
    private const SECTORS = 144;

    private const WORN = ['hair', 'leather', 'metal'];

    /** @var array<string, list<array{Vec, array<int, float>}>> points at rest with their shares, by line */
    private array $lines = [];

    /** @var array<string, list<Vec>> as they are posed */
    private array $posed = [];

    public function __construct(private readonly Figure $figure, string $glb)
    {
        $surface = new SkinnedSurface(GltfReader::read($glb));
        $r = $figure->skeleton->roles;
        if (! isset($r['head'], $r['footL'], $r['footR'])) {
            return;
        }
        $eyes = ($figure->rest('eyeL') ?? [0.0, 1.5, 0.0])[1];
        $head = self::below($figure, 'head');
        $feet = [...self::below($figure, 'footL'), ...self::below($figure, 'footR')];
        foreach ($surface->vertices as [$p, $shares, $material]) {
            $onHead = self::share($shares, $head) > 0.5;
            if ($onHead) {
                $this->lines['crown'][] = [$p, $shares];
            }
            if ($onHead && $material === 'skin' && $p[1] > $eyes) {
                $this->lines['skull'][] = [$p, $shares];
            }
            if (self::share($shares, $feet) > 0.5) {
                $this->lines['sole'][] = [$p, $shares];
            }
        }
        foreach (self::levels($figure) as $mark => $level) {
            $this->lines[$mark] = self::ring($surface, $figure, $level);
        }
    }

    /**
     * @param  list<float>  $row
     */
    public function pose(Placement $place, array $row): void
    {
        $s = $this->figure->skeleton;
        [$rest, $turn] = $s->world($s->rotations);
        [$at, $now] = $s->world(array_slice($row, 3, 4 * $s->count()), [$row[0], $row[1], $row[2]], $this->figure->hips);
        $q = static fn (array $of, int $j): array => [$of[4 * $j], $of[4 * $j + 1], $of[4 * $j + 2], $of[4 * $j + 3]];
        $this->posed = [];
        foreach ($this->lines as $mark => $points) {
            foreach ($points as [$p, $shares]) {
                $sum = [0.0, 0.0, 0.0];
                foreach ($shares as $j => $w) {
                    $off = Q4::rotate(Q4::conjugate($q($turn, $j)), V3::sub($p, [$rest[3 * $j], $rest[3 * $j + 1], $rest[3 * $j + 2]]));
                    $moved = V3::add([$at[3 * $j], $at[3 * $j + 1], $at[3 * $j + 2]], Q4::rotate($q($now, $j), $off));
                    $sum = V3::addScaled($sum, $moved, $w);
                }
                $this->posed[$mark][] = $place->point($sum);
            }
        }
    }

    /** Height in the picture (-1 to 1) of a line; null where no vertex tells it. */
    public function line(string $mark, Aim $aim, Gate $gate, bool $top): ?float
    {
        $points = $this->posed[$mark] ?? [];
        if ($points === [] || $mark === 'knee') {
            return null;
        }
        $half = $gate->sensorWidthMm / 2 / $aim->focalMm / $gate->aspect;
        $seen = array_map(static function (array $p) use ($aim, $half): array {
            $d = V3::sub($p, $aim->position);
            $level = $d[0] * sin($aim->yaw) + $d[2] * cos($aim->yaw);

            return [tan(atan2($d[1], $level) - $aim->pitch) / $half, $level];
        }, $points);
        if (in_array($mark, ['crown', 'skull', 'sole'], true)) {
            return $top ? max(array_column($seen, 0)) : min(array_column($seen, 0));
        }
        $mean = array_sum(array_column($seen, 1)) / count($seen);
        $near = array_filter($seen, static fn (array $v): bool => $v[1] <= $mean);

        return array_sum(array_column($near, 0)) / max(1, count($near));
    }

    /** @return array<string, float> */
    private static function levels(Figure $f): array
    {
        $at = static fn (string $role): float => $f->rest($role)[1] ?? 0.0;
        $waist = $at('spine') + 0.2 * ($at('chest') - $at('spine'));

        return [
            'shoulders' => $at('upperArmL'), 'chest' => ($at('upperChest') + $at('chest')) / 2,
            'belt' => $waist + 0.55 * ($at('upperLegL') - $waist), 'thigh' => ($at('upperLegL') + $at('lowerLegL')) / 2,
        ];
    }

    /** @return list<array{Vec, array<int, float>}> the outermost point of each sector where a level plane cuts the surface */
    private static function ring(SkinnedSurface $surface, Figure $f, float $level): array
    {
        $arms = [...self::below($f, 'upperArmL'), ...self::below($f, 'upperArmR')];
        $middle = $f->rest('spine') ?? [0.0, 0.0, 0.0];
        $best = [];
        foreach ($surface->triangles as $t) {
            foreach ([[0, 1], [1, 2], [2, 0]] as [$i, $j]) {
                [$a, $b] = [$surface->vertices[$t[$i]], $surface->vertices[$t[$j]]];
                if (($a[0][1] < $level) === ($b[0][1] < $level) || in_array($a[2], self::WORN, true)) {
                    continue;
                }
                $u = ($level - $a[0][1]) / ($b[0][1] - $a[0][1]);
                $p = V3::mix($a[0], $b[0], $u);
                $shares = [];
                foreach ($a[1] + $b[1] as $joint => $_) {
                    $shares[$joint] = ($a[1][$joint] ?? 0.0) * (1 - $u) + ($b[1][$joint] ?? 0.0) * $u;
                }
                $far = hypot($p[0] - $middle[0], $p[2] - $middle[2]);
                $sector = (int) floor(self::SECTORS * (atan2($p[0] - $middle[0], $p[2] - $middle[2]) + M_PI) / (2 * M_PI));
                if (self::share($shares, $arms) <= 0.3 && $far > ($best[$sector][0] ?? 0.0)) {
                    $best[$sector] = [$far, [$p, $shares]];
                }
            }
        }

        return array_column($best, 1);
    }

    /**
     * @param  array<int, float>  $shares
     * @param  list<int>  $joints
     */
    private static function share(array $shares, array $joints): float
    {
        return array_sum(array_intersect_key($shares, array_flip($joints)));
    }

    /** @return list<int> */
    private static function below(Figure $f, string $role): array
    {
        $found = [$f->skeleton->roles[$role] ?? -1 => true];
        foreach ($f->skeleton->parents as $j => $p) {
            $found += isset($found[$p]) && $p >= 0 ? [$j => true] : [];
        }

        return array_keys($found);
    }
}
