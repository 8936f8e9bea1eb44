<?php

declare(strict_types=1);

namespace CrispReel\Core\Staging;

use CrispReel\Core\Compile\Clearance;
use CrispReel\Core\Compile\Memory;
use CrispReel\Core\Compile\Surroundings;
use CrispReel\Core\Document\AssetSource;
use CrispReel\Core\Document\Document;
use CrispReel\Core\Document\Item;
use CrispReel\Core\Geometry\FloorMap;
use CrispReel\Core\Math\Placement;

/** What stands in a scene, asked for where somebody or something can be put. All measures in metres of the scene. */
final class Ground
{
    /** Planar radius up to which what is put in is a person. */
    public const BODY = 0.35;

    /** Planar radius of somebody who stands there already. */
    private const PERSON = 0.32;

    /** Square metres above which a set is stood on rather than bumped into. */
    private const OPEN = 12.0;

    private const RING = 0.4;

    private const RINGS = 14;

    /** Metres to each side that a floor goes on, and that it may rise or fall there. */
    private const WIDE = 0.65;

    private const STEP = 0.35;

    private const TALL = 1.7;

    /** @var array<string, FloorMap> by the item that is left out */
    private array $floors = [];

    private readonly Surroundings $around;

    public function __construct(private readonly Document $scene, private readonly AssetSource $assets, Memory $memory = new Memory)
    {
        $this->around = new Surroundings($scene, $assets, $memory);
    }

    /**
     * Height of what one stands on: floors come first, not walls and roofs; 0 where there is nothing.
     *
     * @param  string|null  $except  an item that is no ground: what is moved itself
     * @param  float|null  $from  how high it is already: it stays on its storey
     */
    public function stand(float $x, float $z, ?string $except = null, ?float $from = null): float
    {
        return $this->floors($except)->stand($x, $z, $from) ?? 0.0;
    }

    /**
     * The free place nearest to a wish: clear of what stands there, and for a person in no part of a set and on no furniture.
     *
     * @param  float  $radius  planar, of what is put in
     * @return array{float, float} x and z; the wish itself where nothing is free around it
     */
    public function clear(float $x, float $z, float $radius): array
    {
        $others = $this->inTheWay();
        for ($ring = 0; $ring < self::RINGS; $ring++) {
            for ($k = 0, $n = max(1, 6 * $ring); $k < $n; $k++) {
                $a = 2 * M_PI * $k / $n;
                [$px, $pz] = [$x + $ring * self::RING * sin($a), $z + $ring * self::RING * cos($a)];
                $met = array_filter($others, static fn (array $o): bool => hypot($o[0] - $px, $o[1] - $pz) < $o[2] + $radius);
                if ($met === [] && ($radius > self::BODY || $this->standsFree($px, $pz))) {
                    return [$px, $pz];
                }
            }
        }

        return [$x, $z];
    }

    /**
     * Planar radius of an asset.
     *
     * @param  array<string, mixed>  $digest
     */
    public static function radius(array $digest): float
    {
        $size = self::size($digest);

        return $size === null ? 0.3 : max(0.25, min(2.5, 0.5 * max($size)));
    }

    /**
     * @param  array<string, mixed>  $digest
     * @return array{float, float}|null along x and z
     */
    private static function size(array $digest): ?array
    {
        if (! is_array($digest['bounds'] ?? null)) {
            return null;
        }

        /** @var array{array{float, float, float}, array{float, float, float}} $b */
        $b = $digest['bounds'];

        return [$b[1][0] - $b[0][0], $b[1][2] - $b[0][2]];
    }

    /** @return list<array{float, float, float}> x, z and planar radius of all that somebody bumps into */
    private function inTheWay(): array
    {
        $out = [];
        foreach ($this->scene->items as $item) {
            $digest = $this->digest($item);
            $size = self::size($digest);
            $open = $item->kind === 'set' && (self::isBackdrop($digest) || ($size !== null && $size[0] * $size[1] > self::OPEN));
            if (! $open) {
                $out[] = [$item->position[0], $item->position[2], $item->kind === 'performer' ? self::PERSON : self::radius($digest)];
            }
        }

        return $out;
    }

    private function floors(?string $except): FloorMap
    {
        return $this->floors[$except ?? ''] ??= $this->floorsWithout($except);
    }

    private function floorsWithout(?string $except): FloorMap
    {
        $map = new FloorMap;
        foreach ($this->scene->items as $item) {
            $digest = $item->kind === 'performer' || $item->id === $except ? [] : $this->digest($item);
            $floor = is_string($digest['floor'] ?? null) ? (string) base64_decode($digest['floor']) : '';
            if ($floor !== '' && ! self::isBackdrop($digest)) {
                $numbers = unpack('g*', $floor);

                /** @var list<float> $triangles */
                $triangles = array_values($numbers === false ? [] : $numbers);
                $map->add(Placement::standing($item->position, $item->headingDeg, $item->scale), $triangles);
            }
        }

        return $map;
    }

    /** @return array<string, mixed> */
    private function digest(Item $item): array
    {
        return $this->assets->digest($this->scene->assets[$item->asset]);
    }

    /** @param  array<string, mixed>  $digest */
    private static function isBackdrop(array $digest): bool
    {
        return is_array($digest['extras'] ?? null) && isset($digest['extras']['backdrop']);
    }

    private function standsFree(float $x, float $z): bool
    {
        $y = $this->stand($x, $z);
        $solids = $this->around->solids([$x - 1.0, $z - 1.0, $x + 1.0, $z + 1.0]);

        return Clearance::within($solids, [$x, $y, $z], self::TALL) === null && $this->isWide($x, $y, $z);
    }

    /** Whether a floor goes on to at least half of its sides: a table, a crate and the edge of a wall do not. */
    private function isWide(float $x, float $y, float $z): bool
    {
        $level = 0;
        for ($k = 0; $k < 8; $k++) {
            $a = M_PI * $k / 4;
            $beside = $this->stand($x + self::WIDE * sin($a), $z + self::WIDE * cos($a), null, $y);
            $level += abs($beside - $y) < self::STEP ? 1 : 0;
        }

        return $level >= 4;
    }
}
