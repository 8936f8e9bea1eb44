<?php

declare(strict_types=1);

namespace App\Assets;

use CrispReel\Core\Compile\Figure;
use CrispReel\Core\Format\Gltf\AssetDigest;
use CrispReel\Core\Format\Gltf\GltfReader;
use CrispReel\Core\Kit\Costume;
use CrispReel\Core\Kit\Figure\FigureMaker;
use CrispReel\Core\Kit\Figure\FigureSpec;
use CrispReel\Core\Kit\Pier\PierKit;
use CrispReel\Core\Motion\Model\MotionRecipe;
use CrispReel\Core\Motion\Model\MotionSampler;

/** Makes the shipped kit by code and puts it on the shelves. Safe to run again: nothing is doubled. */
final class HouseKit
{
    /** @var list<array{string, string, string, array<string, int|float>, list<string>}> slug, name, model, settings, tags */
    private const MOTIONS = [
        ['idle', 'Idle', 'idle', ['seed' => 3, 'seconds' => 16], ['idle', 'stand', 'wait', 'breathe']],
        ['walk', 'Walk', 'walk', ['speed' => 1.25], ['walk', 'travel', 'cycle']],
        ['run', 'Run', 'walk', ['speed' => 2.8], ['run', 'travel', 'hurry', 'chase', 'cycle']],
        ['walk-to-mark', 'Walk to a mark', 'walkToMark', ['speed' => 1.2, 'metres' => 3.0], ['walk', 'travel', 'start', 'stop', 'mark']],
        ['talk', 'Talk', 'talk', ['seed' => 5, 'seconds' => 6], ['talk', 'speak', 'gesture', 'argue']],
        ['wave', 'Wave', 'wave', [], ['wave', 'greet', 'call']],
        ['hand-over', 'Hand over', 'handOver', [], ['give', 'hand over', 'pair']],
        ['receive', 'Receive', 'receive', [], ['take', 'receive', 'pair']],
    ];

    public function __construct(private readonly AssetIntake $intake)
    {
    }

    /** @param  callable(string): void|null  $said told of each asset */
    public function install(?callable $said = null): void
    {
        $said ??= static fn (string $name): null => null;
        $figure = null;
        foreach (['oda-ferrant' => FigureSpec::oda(), 'bram-tiel' => FigureSpec::bram()] + FigureSpec::passengers() as $slug => $spec) {
            $said($spec->name);
            $glb = FigureMaker::glb($spec);
            $version = $this->intake->model(null, $glb, $spec->name, 'performer', ['person', 'figure', $spec->top, $spec->hair], $slug, 'Crisp Reel kit', 'CC0-1.0');
            $figure ??= new Figure($version->blob, AssetDigest::of(GltfReader::read($glb)));
        }
        foreach ([...PierKit::all(), ...Costume::all()] as $made) {
            $said($made['name']);
            $this->intake->model(null, $made['glb'], $made['name'], $made['kind'], $made['tags'], $made['slug'], 'Crisp Reel kit', 'CC0-1.0');
        }
        foreach (self::MOTIONS as [$slug, $name, $model, $settings, $tags]) {
            $said($name);
            $recipe = new MotionRecipe($model, $settings);
            $table = MotionSampler::table($figure->body(), $recipe, []);
            $end = $table->at($table->seconds());
            $travel = hypot($end[$table->width - 3], $end[$table->width - 2]);
            $this->intake->recipe(null, $recipe, $name, $tags, $slug, [
                'seconds' => round($table->seconds(), 3), 'loops' => $table->loops, 'travel' => round($travel, 3),
                'speed' => round($travel / $table->seconds(), 3),
            ]);
        }
    }
}
