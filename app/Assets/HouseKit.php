<?php

declare(strict_types=1);

namespace App\Assets;

use App\Models\Asset;
use CrispReel\Core\Format\Gltf\AssetDigest;
use CrispReel\Core\Format\Gltf\GltfReader;
use CrispReel\Core\Kit\Costume;
use CrispReel\Core\Kit\Figure\FigureMaker;
use CrispReel\Core\Kit\Figure\FigureSpec;
use CrispReel\Core\Kit\Motions\MotionKit;
use CrispReel\Core\Kit\Patterns;
use CrispReel\Core\Kit\Pier\PierKit;
use CrispReel\Core\Kit\Places\PlaceKit;
use CrispReel\Core\Kit\Sounds\SoundKit;
use CrispReel\Core\Motion\Model\MotionSampler;
use CrispReel\Core\Rig\Figure;
use Illuminate\Support\Facades\DB;
use Symfony\Component\Finder\Finder;

/** Makes the shipped kit by code and puts it on the shelves. Safe to run again: nothing is doubled. */
final class HouseKit
{
    public function __construct(private readonly AssetIntake $intake)
    {
    }

    public const SHELVES = ['figures', 'things', 'patterns', 'sounds', 'motions'];

    /**
     * @param  callable(string): void|null  $said  told of each asset
     * @param  list<value-of<self::SHELVES>>  $shelves  which of the kit
     * @param  bool  $again  also what the same code has made before
     */
    public function install(?callable $said = null, array $shelves = self::SHELVES, bool $again = false): void
    {
        $count = 0;
        $told = static function (string $name) use (&$count, $said): void {
            $count++;
            $said === null || $said($name);
        };
        $maker = self::maker();
        foreach (array_intersect(self::SHELVES, $shelves) as $shelf) {
            if (! $again && $this->isMade($shelf, $maker)) {
                continue;
            }
            $count = 0;
            $this->{$shelf}($told);
            DB::table('kit_shelves')->upsert(['shelf' => $shelf, 'made_by' => $maker, 'assets' => $count], ['shelf']);
        }
    }

    /** Whether that code has filled the shelf, and nothing has gone from it since. */
    private function isMade(string $shelf, string $maker): bool
    {
        $made = DB::table('kit_shelves')->where('shelf', $shelf)->where('made_by', $maker)->value('assets');

        return $made !== null && $this->onShelf($shelf) >= $made;
    }

    private function onShelf(string $shelf): int
    {
        $kinds = [
            'figures' => ['performer'], 'things' => ['set', 'prop'], 'patterns' => ['picture'], 'sounds' => ['sound'],
            'motions' => ['motion'],
        ];

        return Asset::query()->whereNull('production_id')->whereIn('kind', $kinds[$shelf])->count();
    }

    /** One hash over all code that the kit comes from: the core, and what takes it in. */
    private static function maker(): string
    {
        $files = [
            ...glob(__DIR__.'/*.php') ?: [],
            ...array_map(strval(...), iterator_to_array(Finder::create()->files()->in(base_path('core/src'))->name('*.php'), false)),
        ];
        sort($files);

        return hash('sha256', implode('', array_map(static fn (string $f): string => (string) hash_file('sha256', $f), $files)));
    }

    /** @param  callable(string): void  $said */
    private function figures(callable $said): void
    {
        foreach (FigureSpec::house() as $slug => $first) {
            foreach ([1, 2, 3] as $way) {
                $spec = $first->colourway($way);
                $said($spec->name);
                $glb = FigureMaker::glb($spec);
                $this->intake->model(
                    null, $glb, $spec->name, 'performer', self::figureTags($spec), $way === 1 ? $slug : "{$slug}-{$way}",
                    'Crisp Reel kit', 'CC0-1.0',
                );
            }
        }
    }

    /** @param  callable(string): void  $said */
    private function things(callable $said): void
    {
        foreach ([...PierKit::all(), ...PlaceKit::all(), ...Costume::all()] as $made) {
            $said($made['name']);
            $this->intake->model(
                null, $made['glb'], $made['name'], $made['kind'], $made['tags'], $made['slug'], 'Crisp Reel kit', 'CC0-1.0',
            );
        }
    }

    /** @param  callable(string): void  $said */
    private function patterns(callable $said): void
    {
        foreach (Patterns::all() as $made) {
            $said($made['name']);
            $this->intake->picture($made['png'], $made['name'], $made['tags'], $made['slug']);
        }
    }

    /** @param  callable(string): void  $said */
    private function sounds(callable $said): void
    {
        $noises = SoundKit::noises();
        foreach (SoundKit::all() as $made) {
            $said($made['name']);
            $this->intake->sound(
                $made['wave'], $made['name'], ['sound', ...$made['tags']], $made['slug'], $made['loops'], $noises[$made['slug']] ?? null,
            );
        }
    }

    /** @param  callable(string): void  $said */
    private function motions(callable $said): void
    {
        // Lengths and ways are told for the first person of the house.
        $figure = new Figure('kit', AssetDigest::of(GltfReader::read(FigureMaker::glb(FigureSpec::oda()))));
        foreach (MotionKit::all() as ['slug' => $slug, 'name' => $name, 'recipe' => $recipe, 'tags' => $tags]) {
            $said($name);
            [$model, $seconds, $loops] = MotionSampler::model($figure->body(), $recipe);
            $end = $model($seconds)->root;
            $travel = hypot($end[0], $end[1]) * $figure->body()->scale;
            $this->intake->recipe(null, $recipe, $name, $tags, $slug, [
                'seconds' => round($seconds, 3), 'loops' => $loops, 'travel' => round($travel, 3),
                'speed' => round($travel / $seconds, 3),
            ]);
        }
    }

    /** @return list<string> */
    private static function figureTags(FigureSpec $spec): array
    {
        return array_values(array_filter([
            'person', 'figure', $spec->top, $spec->hair, $spec->heightMetres < 1.45 ? 'child' : '', $spec->age > 0.65 ? 'old' : '',
            $spec->beard ? 'beard' : '', $spec->hat === 'none' ? '' : 'hat', $spec->glasses ? 'glasses' : '',
        ]));
    }
}
