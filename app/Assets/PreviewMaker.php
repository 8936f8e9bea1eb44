<?php

declare(strict_types=1);

namespace App\Assets;

use App\Models\Arrival;
use App\Models\Asset;
use App\Models\AssetVersion;
use App\Models\User;
use App\Scenes\SceneStream;
use CrispReel\Core\Bake\PoseStream;
use CrispReel\Core\Compile\CompiledScene;
use CrispReel\Core\Document\Document;
use CrispReel\Core\Document\Moods;
use CrispReel\Core\Format\Gltf\AssetDigest;
use CrispReel\Core\Rig\Figure;
use Illuminate\Support\Facades\Cache;

/**
 * One thing on a turntable, perhaps with a motion, perhaps with a person beside it for its size: a scene of its own that is
 * never stored, settled by the same core and drawn by the same drawing as any other.
 *
 * @phpstan-type Thing array{kind: string, name: string, blob: string, digest: string}
 */
final class PreviewMaker
{
    private const LONGEST_SECONDS = 20.0;

    private const HOURS = 12;

    public function __construct(private readonly SceneStream $stream)
    {
    }

    /** @return Thing */
    public static function thing(AssetVersion $v): array
    {
        return ['kind' => $v->asset->kind, 'name' => $v->asset->name, 'blob' => $v->light ?? $v->blob, 'digest' => $v->digest];
    }

    /**
     * @param  Thing  $thing
     * @param  bool  $lifted  a prop that hangs by its origin is seen above the ground
     * @return array<string, mixed> a manifest
     */
    public function of(User $user, array $thing, ?AssetVersion $motion = null, bool $beside = false, bool $lifted = false): array
    {
        $y = $lifted && $thing['kind'] === 'prop' ? AssetDigest::rise(app(StoredAssets::class)->byHash($thing['digest'])) : 0.0;
        $assets = [['id' => 'a0'] + $thing];
        $items = [[
            'id' => 'i0', 'kind' => $thing['kind'], 'name' => $thing['name'], 'asset' => 'a0', 'position' => [0.0, $y, 0.0],
            'headingDeg' => 0.0,
        ]];
        $beats = [];
        $seconds = 1 / 24;
        $idle = $motion ?? ($thing['kind'] === 'performer' && self::isHuman($thing) ? self::house('idle') : null);
        if ($idle !== null && $thing['kind'] === 'performer') {
            $assets[] = ['id' => 'm0', 'kind' => 'motion', 'name' => $idle->asset->name, 'blob' => $idle->blob, 'digest' => $idle->digest];
            $length = is_numeric($idle->facts['seconds'] ?? null) ? (float) $idle->facts['seconds'] : 4.0;
            $loops = ($idle->facts['loops'] ?? false) === true;
            $seconds = min(self::LONGEST_SECONDS, $motion === null ? 4.0 : $length);
            $beats[] = [
                'id' => 'b0',
                'item' => 'i0',
                'motion' => 'm0',
                'start' => 0,
                'root' => 'spot',
                'loops' => $loops ? max(1, (int) ceil($seconds / max(0.1, $length))) : 1,
            ];
        }
        if ($beside) {
            $person = self::house('bram-tiel');
            $x = $this->halfWidth($thing) + 0.7;
            if ($person !== null) {
                $assets[] = ['id' => 'p0'] + self::thing($person);
                $items[] = [
                    'id' => 'i1', 'kind' => 'performer', 'name' => 'A person', 'asset' => 'p0', 'position' => [$x, 0.0, 0.0],
                    'headingDeg' => 0.0,
                ];
            }
        }
        $document = Document::fromArray([
            'format' => Document::FORMAT, 'version' => 1, 'name' => 'Preview', 'rate' => [24, 1], 'width' => 640, 'height' => 480,
            'mood' => 'neutral', 'look' => Moods::look('neutral'),
            'assets' => $assets, 'items' => $items, 'beats' => $beats, 'links' => [], 'cameras' => [], 'shots' => [],
        ]);
        $scene = $this->stream->compileDocument($document);
        $manifest = $this->stream->manifest($scene);
        $manifest['frames'] = min($scene->frames, max(1, (int) round($seconds * 24)));
        $manifest['stands'] = array_column($items, 'position');
        $names = [];
        for ($n = 0; $n < min(PoseStream::pieces($scene), (int) ceil(self::LONGEST_SECONDS / 2)); $n++) {
            $its = SceneStream::named($manifest, $n);
            $this->stream->pieces($n, $its, static fn (): CompiledScene => $scene);
            array_push($names, ...$its);
        }
        foreach ([...array_column($assets, 'blob'), ...$names] as $name) {
            Cache::put(self::key($user, $name), true, now()->addHours(self::HOURS));
        }

        return $manifest;
    }

    /** @param  Thing  $thing */
    private static function isHuman(array $thing): bool
    {
        $digest = app(StoredAssets::class)->byHash($thing['digest']);

        return is_array($digest['skeleton'] ?? null) && (new Figure($thing['blob'], $digest))->isHuman();
    }

    /** Who a motion came with, if anyone did. */
    public static function comesWith(AssetVersion $motion): ?AssetVersion
    {
        foreach (Arrival::query()->with('asset')->where(
            'production_id',
            $motion->asset->production_id,
        )->where('kind', 'performer')->whereNotNull('asset_id')->orderByDesc('id')->get() as $arrival) {
            if (in_array($motion->asset_id, $arrival->motions, true) && $arrival->asset?->kind === 'performer') {
                return $arrival->asset->versions()->with('asset')->orderByDesc('number')->first();
            }
        }

        return null;
    }

    public static function may(User $user, string $hash): bool
    {
        return Cache::get(self::key($user, $hash)) === true;
    }

    private static function key(User $user, string $hash): string
    {
        return "preview.{$user->id}.{$hash}";
    }

    public static function house(string $slug): ?AssetVersion
    {
        return Asset::query()->where('slug', $slug)->whereNull('production_id')->first()?->versions()->with('asset')->orderByDesc('number')
            ->first();
    }

    /** @param  Thing  $thing */
    private function halfWidth(array $thing): float
    {
        $b = app(StoredAssets::class)->byHash($thing['digest'])['bounds'] ?? null;

        return is_array($b) && is_array($b[1] ?? null) && is_numeric($b[1][0] ?? null) ? min(40.0, max(0.1, (float) $b[1][0])) : 0.5;
    }
}
