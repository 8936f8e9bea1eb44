<?php

declare(strict_types=1);

namespace App\Bench;

use App\Assets\BlobStore;
use App\Assets\KitShelf;
use App\Models\Asset;
use App\Models\AssetVersion;
use App\Models\Production;
use App\Models\User;
use CrispReel\Core\Cloth\ClothSolver;
use CrispReel\Core\Document\Wish;
use CrispReel\Core\Format\Gltf\Fabric;
use CrispReel\Core\Format\Gltf\GltfDraft;
use CrispReel\Core\Surfaces\Dress;
use CrispReel\Core\Surfaces\SurfaceList;

/** What the kit costs: a search among two thousand assets, a figure dressed, a cloth that is stiff against one that is not. */
final class KitBench
{
    private const ASSETS = 2000;

    private const WORDS = [
        'red', 'old', 'harbour', 'chair', 'table', 'box', 'lamp', 'rope', 'bucket', 'door', 'tree', 'boat', 'hat', 'clock',
    ];

    public function __construct(private readonly BlobStore $blobs, private readonly KitShelf $shelf)
    {
    }

    /**
     * @param  int  $assets  that are put beside the house's
     * @return array<string, float|int>
     */
    public function all(Production $production, User $user, int $assets = self::ASSETS): array
    {
        return $this->search($production, $user, $assets) + $this->dress() + $this->cloth();
    }

    /** @return array<string, float|int> */
    private function search(Production $production, User $user, int $assets): array
    {
        $like = AssetVersion::query()->whereHas('asset', static fn ($q) => $q->where('slug', 'lantern')->whereNull('production_id'))
            ->firstOrFail();
        for ($n = 0; $n < $assets; $n++) {
            [$a, $b] = [self::WORDS[$n % 14], self::WORDS[intdiv($n, 14) % 14]];
            $asset = Asset::query()->create([
                'production_id' => $production->id, 'slug' => "thing-{$n}", 'kind' => 'prop', 'name' => ucfirst($a)." {$b} {$n}",
                'tags' => [$a, $b], 'credit' => 'Nobody', 'licence' => 'CC0-1.0',
            ]);
            $asset->versions()->create(['number' => 1] + $like->only(['blob', 'digest', 'light', 'picture', 'facts', 'findings']));
        }
        $worst = 0.0;
        foreach (['', 'chair', 'happy', 'old boat'] as $words) {
            $worst = max($worst, self::median(fn () => $this->shelf->page($production, ['q' => $words, 'limit' => '60'], $user), 7));
        }

        return ['assets_on_the_shelf' => $assets + Asset::query()->whereNull('production_id')->count(), 'slowest_search_ms' => $worst];
    }

    /** @return array<string, float|int> */
    private function dress(): array
    {
        $glb = $this->blobs->get(AssetVersion::query()->whereHas(
            'asset',
            static fn ($q) => $q->where('slug', 'oda-ferrant')->whereNull('production_id'),
        )->orderByDesc('number')->firstOrFail()->blob);
        $read = self::median(static fn () => GltfDraft::open($glb)->toGlb(), 5);
        $coat = SurfaceList::of(GltfDraft::open($glb))->toArray()[0]['key'];
        $dyed = self::median(static fn () => Dress::glb($glb, [new Wish($coat, '#2f8f4f')], static fn (string $hash): string => ''), 5);

        return ['figure_read_and_packed_ms' => $read, 'figure_dyed_ms' => $dyed, 'dyed_against_read_and_packed' => $dyed / $read];
    }

    /** @return array<string, float|int> */
    private function cloth(): array
    {
        $second = static function (float $bend): float {
            [$points, $index] = [[], []];
            for ($j = 0; $j <= 16; $j++) {
                for ($i = 0; $i <= 16; $i++) {
                    array_push($points, $i / 16, -$j / 16, 0.0);
                    if ($i < 16 && $j < 16) {
                        $a = 17 * $j + $i;
                        array_push($index, $a, $a + 17, $a + 1, $a + 1, $a + 17, $a + 18);
                    }
                }
            }
            $fabric = Fabric::make($points, $index, ['bend' => $bend, 'pins' => [['low' => [-1, -0.01, -1], 'high' => [2, 0.01, 1]]]]);
            $still = array_fill(0, 3 * $fabric->count(), 0.0);

            return self::median(
                static fn () => (new ClothSolver($fabric, $fabric->rest))
                    ->advance(ClothSolver::STEPS, $fabric->rest, $fabric->rest, $still),
                5,
            );
        };
        $soft = $second(0.05);
        $stiff = $second(0.6);

        return ['cloth_of_289_points_a_second_ms' => $soft, 'stiff_cloth_ms' => $stiff, 'stiff_against_soft' => $stiff / $soft];
    }

    /** Milliseconds, the middle of some runs after one that does not count. */
    private static function median(callable $work, int $runs): float
    {
        $work();
        $times = [0.0];
        for ($n = 0; $n < $runs; $n++) {
            $begin = hrtime(true);
            $work();
            $times[$n] = (hrtime(true) - $begin) / 1e6;
        }

        return Figures::median($times);
    }
}
