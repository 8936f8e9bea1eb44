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
use CrispReel\Core\Document\Document;
use CrispReel\Core\Math\Q4;
use Illuminate\Database\Eloquent\Collection;

/**
 * Pictures of kit assets by the application's own drawing: one document in which every asset stands far from the others
 * before a camera of its own, and frame n shows asset n.
 */
final class PictureMaker
{
    private const APART = 60.0;

    /** Pictures of one go: the ground reaches no farther. */
    public const AT_ONCE = 60;

    public function __construct(private readonly RenderDesk $desk, private readonly FramePainter $painter, private readonly FrameStore $frames, private readonly BlobStore $blobs)
    {
    }

    public function queue(): void
    {
        DrawPictures::dispatch()->onQueue('render');
    }

    /** @return int how many were drawn */
    public function make(bool $again = false): int
    {
        $versions = $this->wanting($again);
        if ($versions->isEmpty()) {
            return 0;
        }
        $document = $this->document($versions);
        $job = $this->desk->create($document, null, null, 0, $versions->count(), 320, 240, 'png', 'final', 'pictures.zip');
        try {
            $this->painter->paint($job, range(0, $versions->count() - 1), static fn (): bool => true);
            foreach ($versions->values() as $n => $v) {
                $v->update(['picture' => $this->blobs->put($this->frames->read($job, $n))]);
            }
        } finally {
            $this->frames->clear($job);
            RenderJob::query()->whereKey($job->id)->delete();
        }

        return $versions->count();
    }

    /** @return Collection<int, AssetVersion> */
    private function wanting(bool $again): Collection
    {
        return AssetVersion::query()->with('asset')->whereHas('asset', static fn ($q) => $q->whereIn('kind', ['performer', 'set', 'prop', 'motion'])->whereNull('archived_at'))->when(! $again, fn ($q) => $q->whereNull('picture'))
            ->whereIn('id', AssetVersion::query()->selectRaw('max(id)')->groupBy('asset_id'))->orderBy('id')->limit(self::AT_ONCE)->get();
    }

    /** @param  Collection<int, AssetVersion>  $versions */
    private function document(Collection $versions): Document
    {
        $assets = $items = $beats = $cameras = $shots = [];
        $figure = Asset::query()->where('slug', 'oda-ferrant')->whereNull('production_id')->first()?->versions()->orderByDesc('number')->first();
        $partner = Asset::query()->where('slug', 'bram-tiel')->whereNull('production_id')->first()?->versions()->orderByDesc('number')->first();
        foreach ($versions->values() as $n => $v) {
            $motion = $v->asset->kind === 'motion';
            $body = $motion ? ($n % 2 === 0 ? $figure : $partner) ?? $figure : $v;
            if ($body === null) {
                continue;
            }
            $x = ($n - self::AT_ONCE / 2) * self::APART;
            // A backdrop would be seen behind the others.
            $z = $this->isBackdrop($body) ? 6000.0 : 0.0;
            $id = "v{$body->id}";
            $assets[$id] = ['id' => $id, 'kind' => $motion ? 'performer' : $v->asset->kind, 'name' => $v->asset->name, 'blob' => $body->blob, 'digest' => $body->digest];
            $items[] = ['id' => "i{$n}", 'kind' => $motion ? 'performer' : $v->asset->kind, 'name' => "Asset {$n}", 'asset' => $id, 'position' => [$x, 0.0, $z], 'headingDeg' => 0.0];
            if ($motion) {
                $assets["m{$v->id}"] = ['id' => "m{$v->id}", 'kind' => 'motion', 'name' => $v->asset->name, 'blob' => $v->blob, 'digest' => $v->digest];
                $seconds = is_numeric($v->facts['seconds'] ?? null) ? (float) $v->facts['seconds'] : 2.0;
                $at = ['wave' => 1.2, 'hand-over' => 1.6, 'receive' => 1.7, 'talk' => 1.0, 'walk-to-mark' => 2.2][$v->asset->slug] ?? $seconds * 0.4;
                $beats[] = ['id' => "b{$n}", 'item' => "i{$n}", 'motion' => "m{$v->id}", 'start' => 0, 'sourceIn' => max(0.0, $at - $n / 24), 'root' => 'spot'];
            }
            [$from, $to] = $this->view($body, $x, $motion);
            [$from[2], $to[2]] = [$from[2] + $z, $to[2] + $z];
            $cameras[] = ['id' => "c{$n}", 'letter' => 'A', 'name' => '', 'keys' => [['frame' => 0, 'position' => $from, 'rotation' => Q4::lookAt($from, $to), 'focalMm' => 50.0, 'fStop' => 11.0]]];
            $shots[] = ['id' => "s{$n}", 'camera' => "c{$n}", 'in' => $n, 'out' => $n + 1];
        }

        return Document::fromArray([
            'format' => Document::FORMAT, 'version' => 1, 'name' => 'Pictures', 'rate' => [24, 1], 'width' => 320, 'height' => 240, 'mood' => 'neutral',
            'assets' => array_values($assets), 'items' => $items, 'beats' => $beats, 'links' => [], 'cameras' => $cameras, 'shots' => $shots,
        ]);
    }

    private function isBackdrop(AssetVersion $v): bool
    {
        $digest = json_decode($this->blobs->get($v->digest), true);

        return is_array($digest) && is_array($digest['extras'] ?? null) && isset($digest['extras']['backdrop']);
    }

    /** @return array{array{float, float, float}, array{float, float, float}} camera place and aim */
    private function view(AssetVersion $v, float $x, bool $motion): array
    {
        $digest = json_decode($this->blobs->get($v->digest), true);

        /** @var array{list<float>, list<float>} $b */
        $b = is_array($digest) && is_array($digest['bounds'] ?? null) ? $digest['bounds'] : [[-1, 0, -1], [1, 2, 1]];
        if ($v->asset->kind === 'performer' || $motion) {
            return $motion
                ? [[$x + 2.1, 1.35, 3.7], [$x, 0.86, 0.0]]
                : [[$x + 0.75, 1.55, 2.0], [$x, 1.36, 0.0]];
        }
        $middle = [$x + ($b[0][0] + $b[1][0]) / 2, ($b[0][1] + $b[1][1]) / 2, ($b[0][2] + $b[1][2]) / 2];
        if ($b[1][0] - $b[0][0] > 100) {
            // A backdrop is seen from where the scene is.
            return [[$x, 2.0, 12.0], [$x - 4.0, 4.0, -40.0]];
        }
        $r = 0.5 * sqrt(($b[1][0] - $b[0][0]) ** 2 + ($b[1][1] - $b[0][1]) ** 2 + ($b[1][2] - $b[0][2]) ** 2);
        $d = $r / sin(deg2rad(15.5)) * 1.02;

        return [[$middle[0] + $d * 0.42, $middle[1] + $d * 0.32, $middle[2] + $d * 0.85], $middle];
    }
}
