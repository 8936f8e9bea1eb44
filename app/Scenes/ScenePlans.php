<?php

declare(strict_types=1);

namespace App\Scenes;

use App\Assets\StoredAssets;
use App\Models\Scene;
use CrispReel\Core\Compile\Surroundings;
use CrispReel\Core\Document\AssetRef;
use CrispReel\Core\Geometry\FloorPlan;

/** Floor plans of what a scene is made of, each computed once for a file. */
final class ScenePlans
{
    private const VERSION = 1;

    /** Triangles above which a file has no plan but its bounds: a person waits for the answer. */
    private const MOST = 250_000;

    public function __construct(private readonly StoredAssets $assets)
    {
    }

    /**
     * @param  list<string>  $blobs
     * @return array<string, list<array<string, mixed>>> storeys by blob; of what the scene does not use there is none
     */
    public function of(Scene $scene, array $blobs): array
    {
        $out = [];
        foreach (DocumentBuilder::build($scene)->assets as $asset) {
            if (in_array($asset->blob, $blobs, true) && in_array($asset->kind, ['set', 'prop'], true)) {
                $out[$asset->blob] = $this->plan($asset);
            }
        }

        return $out;
    }

    /** @return list<array<string, mixed>> */
    private function plan(AssetRef $asset): array
    {
        $key = hash('sha256', 'plan|'.self::VERSION."|{$asset->blob}");
        $kept = $this->assets->solved($key);
        if ($kept === null) {
            $digest = $this->assets->digest($asset);
            if (($digest['triangles'] ?? 0) > self::MOST) {
                return [];
            }
            $floor = $digest['floor'] ?? null;
            $numbers = is_string($floor) && $floor !== '' ? unpack('g*', (string) base64_decode($floor)) : [];
            $plan = FloorPlan::of(Surroundings::triangles($this->assets->blob($asset)), array_values($numbers === false ? [] : $numbers));
            $kept = json_encode($plan, JSON_THROW_ON_ERROR);
            $this->assets->keep($key, $kept);
        }

        return (array) json_decode($kept, true);
    }
}
