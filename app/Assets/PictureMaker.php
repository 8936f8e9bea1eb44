<?php

declare(strict_types=1);

namespace App\Assets;

use App\Models\Asset;
use App\Models\AssetVersion;
use App\Models\RenderJob;
use App\Renders\DrawPictures;
use App\Renders\FramePainter;
use App\Renders\FrameStore;
use App\Renders\RenderDesk;
use App\Scenes\SceneStream;
use CrispReel\Core\CoreFailure;
use CrispReel\Core\Document\Document;
use CrispReel\Core\Document\Moods;
use CrispReel\Core\Format\Gltf\AssetDigest;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;
use Illuminate\Database\Eloquent\Collection;
use Throwable;

/**
 * Pictures of kit assets by the application's own drawing: one document in which every asset stands far from the others
 * before a camera of its own, and frame n shows asset n.
 */
final class PictureMaker
{
    private const APART = 60.0;

    /** Tangents of half the angle that a 50 mm lens sees across and upwards, less a margin and what tiles crop. */
    private const SEEN = [0.36 * 0.9, 0.27 * 0.9 * 0.9];

    private const KINDS = ['performer', 'set', 'prop', 'motion'];

    /** Pictures of one go: the ground reaches no farther. */
    public const AT_ONCE = 60;

    public function __construct(
        private readonly RenderDesk $desk,
        private readonly FramePainter $painter,
        private readonly FrameStore $frames,
        private readonly BlobStore $blobs,
        private readonly StoredAssets $stored,
        private readonly SceneStream $stream,
    ) {
    }

    public function queue(): void
    {
        DrawPictures::dispatch()->onQueue('pictures');
    }

    /** All of the house's pictures are to be drawn again. */
    public function forget(): void
    {
        AssetVersion::query()->whereHas('asset', static fn ($q) => $q->whereNull('production_id')->whereIn('kind', self::KINDS))
            ->update(['picture' => null]);
    }

    /** @return int how many of those that have no picture were looked at */
    public function make(): int
    {
        $versions = $this->wanting();
        $this->of($versions);

        return $versions->count();
    }

    /**
     * The first that has none, alone. It is marked as one that cannot be drawn before it is tried: should it end the
     * worker, it is tried no more.
     */
    public function one(): int
    {
        $version = $this->wanting()->first();
        if ($version === null) {
            return 0;
        }
        $version->update(['picture' => '']);
        try {
            $this->of(new Collection([$version]));
        } catch (Throwable $e) {
            report($e);
        }

        return 1;
    }

    /** @param  Collection<int, AssetVersion>  $versions */
    public function of(Collection $versions): void
    {
        // What brings water or a horizon would change the pictures of the others.
        [$alone, $together] = $versions->partition($this->isAlone(...));
        foreach ([...$alone->map(static fn (AssetVersion $v): array => [$v])->all(), $together->all()] as $group) {
            $group = $this->playable(array_values($group));
            if ($group !== []) {
                $this->draw($group);
            }
        }
    }

    /**
     * What can be drawn. One that cannot (a motion whose joints nobody at hand has) goes without a picture, and costs the others none.
     *
     * @param  list<AssetVersion>  $versions
     * @return list<AssetVersion>
     */
    private function playable(array $versions): array
    {
        $plays = function (array $some): bool {
            try {
                $this->stream->compileDocument($this->document($some));
            } catch (CoreFailure) {
                return false;
            }

            return true;
        };
        if ($versions === [] || $plays($versions)) {
            return $versions;
        }
        $good = [];
        foreach ($versions as $v) {
            if ($plays([$v])) {
                $good[] = $v;
            } else {
                $v->update(['picture' => '']);
            }
        }

        return $good;
    }

    /** @param  non-empty-list<AssetVersion>  $versions */
    private function draw(array $versions): void
    {
        $job = $this->desk->create($this->document($versions), null, null, 0, count($versions), 320, 240, 'png', 'final', 'pictures.zip');
        try {
            $this->painter->paint($job, range(0, count($versions) - 1), static fn (): bool => true);
            foreach ($versions as $n => $v) {
                $v->update(['picture' => $this->blobs->put($this->frames->read($job, $n))]);
            }
        } finally {
            $this->frames->clear($job);
            RenderJob::query()->whereKey($job->id)->delete();
        }
    }

    /** @return Collection<int, AssetVersion> */
    private function wanting(): Collection
    {
        return AssetVersion::query()->with('asset')
            ->whereHas('asset', static fn ($q) => $q->whereIn('kind', self::KINDS)->whereNull('archived_at'))->whereNull('picture')
            ->whereIn('id', AssetVersion::query()->selectRaw('max(id)')->groupBy('asset_id'))->orderBy('id')->limit(self::AT_ONCE)->get();
    }

    /** @param  list<AssetVersion>  $versions */
    private function document(array $versions): Document
    {
        $assets = $items = $beats = $cameras = $shots = [];
        $figure = Asset::query()->where('slug', 'oda-ferrant')->whereNull('production_id')->first()?->versions()->orderByDesc('number')
            ->first();
        $partner = Asset::query()->where('slug', 'bram-tiel')->whereNull('production_id')->first()?->versions()->orderByDesc('number')
            ->first();
        foreach ($versions as $n => $v) {
            $motion = $v->asset->kind === 'motion';
            $body = $motion ? PreviewMaker::comesWith($v) ?? ($n % 2 === 0 ? $figure : $partner) ?? $figure : $v;
            if ($body === null) {
                continue;
            }
            $x = ($n - intdiv(count($versions), 2)) * self::APART;
            $bounds = $this->bounds($body);
            // What hangs by its origin is lifted off the ground.
            $y = $v->asset->kind === 'set' && ! $this->isAlone($v)
                ? max(0.0, -$bounds[0][1])
                : AssetDigest::rise($this->stored->byHash($body->digest));
            $id = "v{$body->id}";
            $assets[$id] = [
                'id' => $id, 'kind' => $motion ? 'performer' : $v->asset->kind, 'name' => $v->asset->name, 'blob' => $body->blob,
                'digest' => $body->digest,
            ];
            $items[] = [
                'id' => "i{$n}", 'kind' => $motion ? 'performer' : $v->asset->kind, 'name' => "Asset {$n}", 'asset' => $id,
                'position' => [$x, $y, 0.0], 'headingDeg' => 0.0,
            ];
            if ($motion) {
                $assets["m{$v->id}"] = [
                    'id' => "m{$v->id}", 'kind' => 'motion', 'name' => $v->asset->name, 'blob' => $v->blob, 'digest' => $v->digest,
                ];
                $seconds = is_numeric($v->facts['seconds'] ?? null) ? (float) $v->facts['seconds'] : 2.0;
                $at = ['wave' => 1.2, 'hand-over' => 1.6, 'receive' => 1.7, 'talk' => 1.0, 'walk-to-mark' => 2.2][$v->asset->slug]
                    ?? $seconds * 0.4;
                $beats[] = [
                    'id' => "b{$n}", 'item' => "i{$n}", 'motion' => "m{$v->id}", 'start' => 0, 'sourceIn' => max(0.0, $at - $n / 24),
                    'root' => 'spot',
                ];
            }
            [$from, $to] = $motion ? [[$x + 2.1, 1.35, 3.7], [$x, 0.86, 0.0]] : self::view($v->asset->kind, $bounds, [$x, $y, 0.0]);
            $cameras[] = [
                'id' => "c{$n}",
                'letter' => 'A',
                'name' => '',
                'keys' => [['frame' => 0, 'position' => $from, 'rotation' => Q4::lookAt($from, $to), 'focalMm' => 50.0, 'fStop' => 11.0]],
            ];
            $shots[] = ['id' => "s{$n}", 'camera' => "c{$n}", 'in' => $n, 'out' => $n + 1];
        }

        return Document::fromArray([
            'format' => Document::FORMAT, 'version' => 1, 'name' => 'Pictures', 'rate' => [24, 1], 'width' => 320, 'height' => 240,
            'mood' => 'neutral', 'look' => Moods::look('neutral'),
            'assets' => array_values($assets), 'items' => $items, 'beats' => $beats, 'links' => [], 'cameras' => $cameras,
            'shots' => $shots,
        ]);
    }

    private function isAlone(AssetVersion $v): bool
    {
        $extras = $this->stored->byHash($v->digest)['extras'] ?? null;

        return is_array($extras) && (isset($extras['backdrop']) || isset($extras['water']));
    }

    /** @return array{list<float>, list<float>} least and greatest corner, metres */
    private function bounds(AssetVersion $v): array
    {
        /** @var array{list<float>, list<float>} $bounds */
        $bounds = $this->stored->byHash($v->digest)['bounds'] ?? [[-1.0, 0.0, -1.0], [1.0, 2.0, 1.0]];

        return $bounds;
    }

    /**
     * @param  array{list<float>, list<float>}  $b
     * @param  array{float, float, float}  $at  where it stands
     * @return array{array{float, float, float}, array{float, float, float}} camera place and aim
     */
    private static function view(string $kind, array $b, array $at): array
    {
        if ($kind === 'performer') {
            // Head and shoulders; the small stay a little smaller.
            $face = 0.765 * $b[1][1];
            $near = 0.55 + 0.45 * $b[1][1] / 1.8;

            return [V3::add($at, [0.75 * $near, $face + 0.19 * $near, 2.0 * $near]), V3::add($at, [0.0, $face, 0.0])];
        }
        if ($b[1][0] - $b[0][0] > 100) {
            // A backdrop is seen from where the scene is.
            return [V3::add($at, [0.0, 2.0, 12.0]), V3::add($at, [-4.0, 4.0, -40.0])];
        }
        $middle = [($b[0][0] + $b[1][0]) / 2, ($b[0][1] + $b[1][1]) / 2, ($b[0][2] + $b[1][2]) / 2];
        $back = V3::unit([0.42, 0.32, 0.85]);
        $right = V3::unit(V3::cross([0.0, 1.0, 0.0], $back));
        $up = V3::cross($back, $right);
        $distance = 0.0;
        for ($corner = 0; $corner < 8; $corner++) {
            $c = V3::sub([$b[$corner & 1][0], $b[$corner >> 1 & 1][1], $b[$corner >> 2][2]], $middle);
            $wide = max(abs(V3::dot($c, $right)) / self::SEEN[0], abs(V3::dot($c, $up)) / self::SEEN[1]);
            $distance = max($distance, V3::dot($c, $back) + $wide);
        }
        $middle = V3::add($middle, $at);

        return [V3::addScaled($middle, $back, $distance), $middle];
    }
}
