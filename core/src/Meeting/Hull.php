<?php

declare(strict_types=1);

namespace CrispReel\Core\Meeting;

use CrispReel\Core\Math\Ease;
use CrispReel\Core\Math\V3;

/**
 * How thick a trunk is all round, by height and heading, and where its arms are: what another's arms have to go round.
 *
 * @phpstan-type Vec array{float, float, float}
 */
final class Hull
{
    private const STEP = 0.04;

    private const SECTORS = 24;

    /** @var array<string, float> radius by height and sector */
    private array $radius = [];

    /** @var list<array{Vec, Vec, float}> ends and radii of the arms */
    private array $arms = [];

    /**
     * @param  Vec  $axis  a point of the trunk's upright axis
     */
    public function __construct(Person $of, int $f, private readonly array $axis)
    {
        foreach ($of->drawn($of->skin->vertices(['hips', 'spine', 'chest', 'upperChest']), $f) as [$x, $y, $z]) {
            [$dx, $dz] = [$x - $axis[0], $z - $axis[2]];
            $key = self::key($y, atan2($dx, $dz));
            $this->radius[$key] = max($this->radius[$key] ?? 0.0, hypot($dx, $dz));
        }
        foreach (['L', 'R'] as $s) {
            $k = $of->size();
            $this->arms[] = [$of->at("upperArm{$s}", $f), $of->at("lowerArm{$s}", $f), 0.052 * $k];
            $this->arms[] = [$of->at("lowerArm{$s}", $f), $of->at("hand{$s}", $f), 0.042 * $k];
        }
    }

    private static function key(float $y, float $angle): string
    {
        $sector = (int) floor(($angle / (2 * M_PI) + 1.0) * self::SECTORS) % self::SECTORS;

        return (int) floor($y / self::STEP).' '.$sector;
    }

    /**
     * Metres by which a ball is in the trunk or in an arm.
     *
     * @param  Vec  $p
     */
    public function depth(array $p, float $radius): float
    {
        [$dx, $dz] = [$p[0] - $this->axis[0], $p[2] - $this->axis[2]];
        $r = $this->radius[self::key($p[1], atan2($dx, $dz))] ?? 0.0;
        $deep = max(0.0, $r + $radius - hypot($dx, $dz));
        foreach ($this->arms as [$a, $b, $thick]) {
            $ab = V3::sub($b, $a);
            $u = Ease::clamp(V3::dot(V3::sub($p, $a), $ab) / max(1e-9, V3::dot($ab, $ab)));
            $deep = max($deep, $thick + $radius - V3::distance($p, V3::addScaled($a, $ab, $u)));
        }

        return $deep;
    }
}
