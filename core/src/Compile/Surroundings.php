<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile;

use CrispReel\Core\Document\AssetRef;
use CrispReel\Core\Document\AssetSource;
use CrispReel\Core\Document\Document;
use CrispReel\Core\Document\Item;
use CrispReel\Core\Format\Gltf\GltfReader;
use CrispReel\Core\Format\Gltf\WildWall;
use CrispReel\Core\Geometry\Plane;
use CrispReel\Core\Geometry\RayTree;
use CrispReel\Core\Geometry\Solids;
use CrispReel\Core\Math\M4;
use CrispReel\Core\Math\Placement;

/** What stands still around the performers: sets, and props that nobody carries and that are large enough to stand on. */
final class Surroundings
{
    /** Planar measure (metres) below which a prop is neither ground nor wall. */
    private const LEAST = 0.35;

    /** @var list<array{Item, float, float, float}>|null */
    private ?array $still = null;

    public function __construct(
        private readonly Document $document,
        private readonly AssetSource $assets,
        private readonly Memory $memory = new Memory,
    ) {
    }

    /** @return list<mixed> what all answers, wherever, are computed from */
    public function everything(): array
    {
        return array_map(
            fn (array $s): array => [
                $s[0]->id, $s[0]->name, $this->document->assets[$s[0]->asset]->blob, $s[0]->position, $s[0]->headingDeg, $s[0]->scale,
            ],
            $this->still(),
        );
    }

    /**
     * The things that a planar region touches.
     *
     * @param  array{float, float, float, float}  $region  low x, low z, high x, high z
     * @return array<string, Item>
     */
    private function near(array $region): array
    {
        $out = [];
        foreach ($this->still() as [$item, $x, $z, $radius]) {
            $dx = max($region[0] - $x, 0.0, $x - $region[2]);
            $dz = max($region[1] - $z, 0.0, $z - $region[3]);
            if (hypot($dx, $dz) <= $radius) {
                $out[$item->id] = $item;
            }
        }

        return $out;
    }

    /** Whether there is anything at all to stand on. */
    public function isEmpty(): bool
    {
        return $this->still() === [];
    }

    /**
     * All that stands still and is large enough, with its middle and planar radius.
     *
     * @return list<array{Item, float, float, float}>
     */
    private function still(): array
    {
        if ($this->still !== null) {
            return $this->still;
        }
        $moved = [];
        foreach ($this->document->links as $l) {
            $moved[$l->child] = true;
        }
        $this->still = [];
        foreach ($this->document->items as $item) {
            if ($item->kind === 'performer' || isset($moved[$item->id]) || $item->moves()) {
                continue;
            }
            $digest = $this->assets->digest($this->document->assets[$item->asset]);
            $extras = is_array($digest['extras'] ?? null) ? $digest['extras'] : [];
            if (isset($extras['backdrop']) || isset($extras['cloth']) || ! is_array($digest['bounds'] ?? null)) {
                continue;
            }

            /** @var array{array{float, float, float}, array{float, float, float}} $b */
            $b = $digest['bounds'];
            if (max($b[1][0] - $b[0][0], $b[1][2] - $b[0][2]) * $item->scale < self::LEAST) {
                continue;
            }
            $m = $this->place($item)->point([($b[0][0] + $b[1][0]) / 2, 0.0, ($b[0][2] + $b[1][2]) / 2]);
            $this->still[] = [$item, $m[0], $m[2], hypot($b[1][0] - $b[0][0], $b[1][2] - $b[0][2]) / 2 * $item->scale];
        }

        return $this->still;
    }

    private function place(Item $item): Placement
    {
        return Placement::standing($item->position, $item->headingDeg, $item->scale);
    }

    /**
     * What the answers in a region are computed from.
     *
     * @param  array{float, float, float, float}  $region
     * @return list<mixed>
     */
    public function signature(array $region): array
    {
        return array_values(array_map(
            fn (Item $i): array => [$this->document->assets[$i->asset]->blob, $i->position, $i->headingDeg, $i->scale],
            $this->near($region),
        ));
    }

    /**
     * @param  array{float, float, float, float}  $region
     * @return list<string> of the things that a region touches
     */
    public function names(array $region): array
    {
        return array_values(array_map(static fn (Item $i): string => $i->name, $this->near($region)));
    }

    /**
     * @param  array{float, float, float, float}  $region
     * @param  list<string>  $without  items that are left out
     */
    public function solids(array $region, array $without = []): Solids
    {
        $solids = new Solids;
        foreach (array_diff_key($this->near($region), array_flip($without)) as $item) {
            $solids->add($item->name, $this->place($item), $this->tree($this->document->assets[$item->asset]));
        }

        return $solids;
    }

    /**
     * The same, each named by its id.
     *
     * @param  array{float, float, float, float}  $region
     */
    public function floors(array $region): Solids
    {
        $solids = new Solids;
        foreach ($this->near($region) as $item) {
            $solids->add($item->id, $this->place($item), $this->tree($this->document->assets[$item->asset]));
        }

        return $solids;
    }

    /**
     * The same as a lens meets it: walls that are taken away for whoever films from behind them are things of their own.
     *
     * @param  array{float, float, float, float}  $region
     */
    public function forLens(array $region): Solids
    {
        $solids = new Solids;
        foreach ($this->near($region) as $item) {
            $asset = $this->assets($item);
            [$body, $walls] = $this->memory->of("lens rays {$asset->blob}", fn (): array => self::apart($this->assets, $asset));
            $solids->add($item->name, $this->place($item), $body);
            foreach ($walls as [$tree, $plane]) {
                $solids->add($item->name, $this->place($item), $tree, $plane);
            }
        }

        return $solids;
    }

    private function assets(Item $item): AssetRef
    {
        return $this->document->assets[$item->asset];
    }

    /** @return array{RayTree, list<array{RayTree, Plane}>} what stands, and its wild walls */
    private static function apart(AssetSource $assets, AssetRef $asset): array
    {
        // The file is opened only where it says that it has any.
        $extras = $assets->digest($asset)['extras'] ?? [];
        $planes = is_array($extras) && isset($extras['wild']) ? WildWall::planes(GltfReader::read($assets->blob($asset))) : [];
        if ($planes === []) {
            return [self::treeOf($assets, $asset), []];
        }
        $walls = array_map(
            static fn (string $name, Plane $plane): array => [self::treeOf($assets, $asset, $name), $plane], array_keys($planes), $planes,
        );

        return [self::treeOf($assets, $asset, ''), $walls];
    }

    private function tree(AssetRef $asset): RayTree
    {
        return $this->memory->of("rays {$asset->blob}", fn (): RayTree => self::treeOf($this->assets, $asset));
    }

    /**
     * The tree over an asset's triangles, made once.
     *
     * @param  string|null  $wall  one wild wall alone; '': all but those
     */
    public static function treeOf(AssetSource $assets, AssetRef $asset, ?string $wall = null): RayTree
    {
        $key = hash('sha256', "rays|1|{$asset->blob}".($wall === null ? '' : "|{$wall}"));
        $bytes = $assets->solved($key);
        if ($bytes === null) {
            $bytes = RayTree::of(self::triangles($assets->blob($asset), $wall))->toBytes();
            $assets->keep($key, $bytes);
        }

        return RayTree::fromBytes($bytes);
    }

    /**
     * @param  string|null  $wall  one wild wall alone; '': all but those
     * @return list<float> 9 numbers a triangle, in the asset's own space
     */
    public static function triangles(string $glb, ?string $wall = null): array
    {
        $gltf = GltfReader::read($glb);
        $out = [];
        foreach ($gltf->primitives() as [$node, $p]) {
            $isOther = $wall !== null && ($gltf->within($node, WildWall::WILD) ?? '') !== $wall;
            if ($isOther || $gltf->within($node, WildWall::BEYOND) !== null) {
                continue;
            }
            $m = $gltf->nodes[$node]['skin'] !== null ? M4::IDENTITY : $gltf->worldMatrix($node);
            $points = [];
            for ($i = 0, $n = count($p['positions']); $i < $n; $i += 3) {
                $points[] = M4::point($m, [$p['positions'][$i], $p['positions'][$i + 1], $p['positions'][$i + 2]]);
            }
            foreach ($p['index'] as $i) {
                array_push($out, ...$points[$i]);
            }
        }

        return $out;
    }
}
