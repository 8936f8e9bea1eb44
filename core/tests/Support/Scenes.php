<?php

declare(strict_types=1);

namespace CrispReel\Core\Tests\Support;

use CrispReel\Core\Compile\CompiledScene;
use CrispReel\Core\Compile\Memory;
use CrispReel\Core\Compile\SceneCompiler;
use CrispReel\Core\Document\Document;

/** Small documents for tests. */
final class Scenes
{
    /**
     * @param  array<string, mixed>  $parts
     * @return array<string, mixed>
     */
    public static function data(array $parts): array
    {
        $hash = static fn (string $s): string => hash('sha256', $s);
        $assets = [];
        foreach ([
            'oda' => 'performer', 'bram' => 'performer', 'pim-alder' => 'performer', 'box' => 'set', 'key' => 'prop', 'lantern' => 'prop',
            'stool' => 'prop', 'chair' => 'prop', 'bench' => 'prop',
            'wagon' => 'prop', 'bicycle' => 'prop', 'cloak' => 'prop', 'banner' => 'prop', 'boat' => 'prop', 'ramp' => 'set',
            'slope10' => 'set', 'slope20' => 'set', 'slope30' => 'set',
        ] as $id => $kind) {
            $assets[] = ['id' => $id, 'kind' => $kind, 'name' => ucfirst($id), 'blob' => $hash($id), 'digest' => $hash("{$id} digest")];
        }
        foreach ([
            'idle', 'walk', 'walkToMark', 'talk', 'wave', 'handOver', 'receive', 'stepUp', 'stepDown', 'jumpDown', 'pushA', 'pushB',
            'recordedWalk', 'getOn', 'getOff', 'waitOn', 'ride', 'row', 'trip', 'jump', 'sitDown', 'sitIdle', 'sitForward', 'standUp',
            'leadByHand', 'ledByHand', 'flee', 'throwToA', 'throwToB', 'carrySomebody', 'beCarried',
            'turn45Left', 'turn90Left', 'turn180Left', 'turn45Right', 'turn90Right', 'turn180Right',
        ] as $m) {
            $assets[] = ['id' => "m-{$m}", 'kind' => 'motion', 'name' => $m, 'blob' => $hash($m), 'digest' => $hash("{$m} digest")];
        }

        return $parts + [
            'format' => Document::FORMAT, 'version' => 1, 'name' => 'Test', 'rate' => [24, 1], 'width' => 1280, 'height' => 720,
            'mood' => 'neutral',
            'assets' => $assets, 'items' => [], 'beats' => [], 'links' => [], 'cameras' => [], 'shots' => [],
        ];
    }

    /** @param  array<string, mixed>  $parts */
    public static function compile(array $parts, ?FakeAssets $assets = null, ?Memory $memory = null): CompiledScene
    {
        return SceneCompiler::compile(Document::fromArray(self::data($parts)), $assets ?? new FakeAssets, $memory);
    }

    /** @return array<string, mixed> */
    public static function item(
        string $id, string $asset, float $x = 0.0, float $z = 0.0, float $headingDeg = 0.0, float $y = 0.0, float $scale = 1.0,
    ): array {
        $kind = [
            'oda' => 'performer', 'bram' => 'performer', 'pim-alder' => 'performer', 'box' => 'set', 'ramp' => 'set',
        ][$asset] ?? 'prop';

        return [
            'id' => $id, 'kind' => $kind, 'name' => $id, 'asset' => $asset, 'position' => [$x, $y, $z], 'headingDeg' => $headingDeg,
            'scale' => $scale, 'tape' => 0,
        ];
    }

    /**
     * @param  array<string, mixed>  $more
     * @return array<string, mixed>
     */
    public static function beat(string $id, string $item, string $motion, int $start, array $more = []): array
    {
        return ['id' => $id, 'item' => $item, 'motion' => "m-{$motion}", 'start' => $start] + $more;
    }

    /**
     * @param  list<array<string, mixed>>  $keys
     * @return array<string, mixed>
     */
    public static function camera(string $id, array $keys): array
    {
        $keys = array_map(
            static fn (array $k): array => $k + ['frame' => 0, 'position' => [0, 1.5, 5], 'rotation' => [0, 0, 0, 1], 'focalMm' => 35.0],
            $keys,
        );

        return ['id' => $id, 'letter' => strtoupper(substr($id, -1)), 'name' => '', 'keys' => $keys];
    }
}
