<?php

declare(strict_types=1);

namespace App\Assets;

use App\Exceptions\UserError;
use App\Models\Asset;
use App\Models\AssetVersion;
use App\Models\Production;
use App\Sound\SoundFiles;
use CrispReel\Core\Format\Bvh\BvhReader;
use CrispReel\Core\Format\Gltf\AssetDigest;
use CrispReel\Core\Format\Gltf\GltfLimits;
use CrispReel\Core\Format\Gltf\GltfReader;
use CrispReel\Core\Format\Wave;
use CrispReel\Core\Motion\Model\MotionRecipe;
use CrispReel\Core\Rig\HumanRoles;
use CrispReel\Core\Rig\Skeleton;
use CrispReel\Core\Sound\WavePicture;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;

/** Brings files into the kit: checked, digested, stored by content, given a version. */
final class AssetIntake
{
    public function __construct(private readonly BlobStore $blobs, private readonly SoundFiles $sounds)
    {
    }

    /**
     * A GLB, an embedded glTF or a BVH; kind null: told from what is in it.
     *
     * @param  list<string>  $tags
     */
    public function model(
        ?Production $production, string $bytes, string $name, ?string $kind = null, array $tags = [], ?string $slug = null,
        string $credit = 'Brought in', string $licence = 'unknown',
    ): AssetVersion {
        if (BvhReader::looksLike($bytes)) {
            if ($kind !== null && $kind !== 'motion') {
                throw new UserError(
                    'intake.only-motion',
                    "\"{$name}\" is a BVH file, which holds a motion and nothing to draw.",
                    'Bring it in as a motion.',
                );
            }

            return $this->bvh($production, $bytes, $name, $tags, $slug, $credit, $licence);
        }
        $limit = config('reel.upload_bytes');
        $gltf = GltfReader::read($bytes, new GltfLimits(bytes: is_int($limit) ? $limit : 0));
        $digest = AssetDigest::of($gltf);
        $kind ??= match (true) {
            $digest['kind'] === 'figure' && $digest['vertices'] > 0 => 'performer',
            $digest['vertices'] === 0 && $digest['clips'] !== [] => 'motion',
            $digest['bounds'][1][0] - $digest['bounds'][0][0] > 4.0 => 'set',
            default => 'prop',
        };
        if ($kind === 'motion' && $digest['clips'] === []) {
            throw new UserError(
                'intake.no-motion',
                "There is no motion in \"{$name}\".",
                'Bring it in as a prop or a performer, or export it with its animation.',
            );
        }
        if ($kind !== 'motion' && $digest['vertices'] === 0) {
            throw new UserError(
                'intake.empty',
                "There is nothing to draw in \"{$name}\".",
                'Export it with its meshes, or bring it in as a motion.',
            );
        }

        return $this->store($production, $kind, $name, $bytes, $digest, $tags, $slug, $credit, $licence);
    }

    /**
     * @param  list<string>  $tags
     */
    private function bvh(
        ?Production $production, string $bytes, string $name, array $tags, ?string $slug, string $credit, string $licence,
    ): AssetVersion {
        $bvh = BvhReader::read($bytes);
        $judged = HumanRoles::judge($bvh->skeleton);
        $findings = $bvh->findings;
        foreach (array_diff(['hips', 'upperLegL', 'upperLegR', 'footL', 'footR'], array_keys($judged)) as $missing) {
            $findings[] = "No joint could be told as {$missing}; choose one with reel:roles before the motion is used.";
        }
        $seconds = round($bvh->clip->seconds, 4);
        $facts = [
            'seconds' => $seconds, 'frames' => $bvh->frames, 'rate' => round(1 / $bvh->frameSeconds, 3),
            'joints' => $bvh->skeleton->count(), 'roles' => count($judged),
            'surely' => $judged === [] ? 0.0 : min(array_column($judged, 'confidence')), 'loops' => false,
        ];
        $digest = [
            'kind' => 'motion', 'format' => 'bvh', 'clips' => [['name' => $name, 'seconds' => $seconds]],
            'skeleton' => $bvh->skeleton->toArray(), 'judged' => $judged,
        ];

        return $this->store($production, 'motion', $name, $bytes, $digest, $tags, $slug, $credit, $licence, $facts, $findings);
    }

    /**
     * A version whose roles are those that a person has chosen.
     *
     * @param  array<string, string>  $byHand  role to joint name; an empty name takes a role away
     */
    public function roles(AssetVersion $version, array $byHand): AssetVersion
    {
        $digest = json_decode($this->blobs->get($version->digest), true);
        if (! is_array($digest) || ! is_array($digest['skeleton'] ?? null)) {
            throw new UserError(
                'roles.none',
                "\"{$version->asset->name}\" has no joints.",
                'Choose a performer, or a motion that came in as a file.',
            );
        }

        /** @var array{names: list<string>, parents: list<int>, translations: list<float>, rotations: list<float>, scales: list<float>, roles: array<string, int>} $s */
        $s = $digest['skeleton'];
        $skeleton = Skeleton::fromArray($s);
        $before = is_array($digest['rolesByHand'] ?? null) ? $digest['rolesByHand'] : [];
        $byHand += array_filter($before, is_string(...));
        $roles = HumanRoles::chosen($skeleton, $byHand);
        $digest['rolesByHand'] = $byHand;
        $digest['skeleton'] = ['roles' => $roles] + $s;

        return $version->asset->versions()->create([
            'number' => (int) $version->asset->versions()->max('number') + 1, 'blob' => $version->blob, 'light' => $version->light,
            'picture' => $version->picture,
            'digest' => $this->blobs->put(json_encode($digest, JSON_THROW_ON_ERROR | JSON_PRESERVE_ZERO_FRACTION)),
            'facts' => ['roles' => count($roles)] + $version->facts, 'findings' => $version->findings,
        ]);
    }

    /**
     * A generated motion: its file is the recipe.
     *
     * @param  list<string>  $tags
     * @param  array<string, mixed>  $facts
     */
    public function recipe(
        ?Production $production,
        MotionRecipe $recipe,
        string $name,
        array $tags,
        string $slug,
        array $facts,
    ): AssetVersion {
        $bytes = json_encode(['format' => 'crisp-reel/motion', 'version' => 1, 'recipe' => $recipe->toArray()], JSON_THROW_ON_ERROR);

        $version = $this->store(
            $production, 'motion', $name, $bytes, ['kind' => 'motion', 'recipe' => $recipe->toArray()] + $facts, $tags, $slug,
            'Crisp Reel kit', 'CC0-1.0', $facts,
        );
        // What can be set of it stands with its facts, for the card of a beat.
        $version->update(['facts' => ['recipe' => $recipe->toArray()] + $version->facts]);

        return $version;
    }

    /**
     * A picture of the house, for surfaces.
     *
     * @param  list<string>  $tags
     */
    public function picture(string $png, string $name, array $tags, string $slug): AssetVersion
    {
        $size = getimagesizefromstring($png);
        $facts = ['pixels' => $size === false ? [0, 0] : [$size[0], $size[1]]];
        $version = $this->store(
            null, 'picture', $name, $png, ['kind' => 'picture'] + $facts, $tags, $slug, 'Crisp Reel kit', 'CC0-1.0', $facts,
        );
        $version->update(['picture' => $version->blob]);

        return $version;
    }

    /**
     * A sound of the house.
     *
     * @param  list<string>  $tags
     * @param  array{of: string, every: float, count: int}|null  $noise  of what happens it is the sound
     */
    public function sound(Wave $wave, string $name, array $tags, string $slug, bool $loops, ?array $noise = null): AssetVersion
    {
        $facts = [
            'seconds' => round($wave->seconds(), 3), 'channels' => 1, 'sampleRate' => $wave->rate, 'codec' => 'pcm_s16le',
            'loops' => $loops,
        ] + ($noise === null ? [] : ['noise' => $noise]);
        $version = $this->store(
            null, 'sound', $name, $wave->toWav(), ['kind' => 'sound'] + $facts, $tags, $slug, 'Crisp Reel kit', 'CC0-1.0', $facts,
        );
        $version->update(['picture' => $this->blobs->put(WavePicture::of($wave))]);

        return $version;
    }

    /**
     * @param  array<string, mixed>  $digest
     * @param  list<string>  $tags
     * @param  array<string, mixed>|null  $facts
     * @param  list<string>  $findings
     */
    private function store(
        ?Production $production, string $kind, string $name, string $bytes, array $digest, array $tags, ?string $slug, string $credit,
        string $licence, ?array $facts = null, array $findings = [],
    ): AssetVersion {
        $slug ??= $this->freeSlug($production, $name);

        return DB::transaction(function () use (
            $production, $kind, $name, $bytes, $tags, $slug, $credit, $licence, $digest, $facts, $findings,
        ): AssetVersion {
            $asset = Asset::query()->firstOrCreate(
                ['production_id' => $production?->id, 'slug' => $slug],
                $called = [
                    'kind' => $kind, 'name' => Str::limit($name, 110, ''), 'tags' => $tags, 'credit' => $credit, 'licence' => $licence,
                ],
            );
            if ($production === null) {
                // What the house calls its things follows the house.
                $asset->update($called);
            }

            return $this->version($asset, $bytes, $digest, $facts, $findings);
        });
    }

    /**
     * An asset of a production under a free name, without a version yet.
     *
     * @param  list<string>  $tags
     */
    public function asset(Production $production, string $kind, string $name, array $tags, string $source): Asset
    {
        $name = Str::limit($name, 110, '');

        return Asset::query()->create([
            'production_id' => $production->id, 'slug' => $this->freeSlug($production, $name), 'kind' => $kind, 'name' => $name,
            'tags' => $tags, 'credit' => 'Brought in', 'licence' => 'unknown', 'source' => mb_substr($source, -290),
        ]);
    }

    /**
     * The next version, or the newest again when nothing is new in it.
     *
     * @param  array<string, mixed>  $digest
     * @param  array<string, mixed>|null  $facts
     * @param  list<string>  $findings
     */
    public function version(
        Asset $asset, string $bytes, array $digest, ?array $facts = null, array $findings = [], ?string $light = null,
        ?string $picture = null,
    ): AssetVersion {
        $blob = $this->blobs->put($bytes);
        if (($digest['kind'] ?? null) === 'sound') {
            $digest['loud'] = $this->sounds->loudness($bytes);
        }
        $digestHash = $this->blobs->put(json_encode($digest, JSON_THROW_ON_ERROR | JSON_PRESERVE_ZERO_FRACTION));
        $lightHash = $light === null ? null : $this->blobs->put($light);
        $latest = $asset->versions()->orderByDesc('number')->first();
        if ($latest !== null && $latest->blob === $blob && $latest->digest === $digestHash && $latest->light === $lightHash) {
            return $latest;
        }

        return $asset->versions()->create([
            'number' => ($latest->number ?? 0) + 1, 'blob' => $blob, 'digest' => $digestHash, 'light' => $lightHash, 'picture' => $picture,
            'facts' => $facts ?? self::facts($digest), 'findings' => $findings,
        ]);
    }

    private function freeSlug(?Production $production, string $name): string
    {
        $base = Str::slug(Str::limit($name, 80, '')) ?: 'asset';
        for ($n = 1, $slug = $base; Asset::query()->where('production_id', $production?->id)->where('slug', $slug)->exists(); $n++) {
            $slug = "{$base}-{$n}";
        }

        return $slug;
    }

    /**
     * @param  array<string, mixed>  $digest
     * @return array<string, mixed>
     */
    public static function facts(array $digest): array
    {
        /** @var array{list<float>, list<float>} $b */
        $b = $digest['bounds'];
        $roles = is_array($digest['skeleton'] ?? null) && is_array($digest['skeleton']['roles'] ?? null)
            ? count($digest['skeleton']['roles'])
            : 0;
        $names = is_array($digest['skeleton'] ?? null) && is_array($digest['skeleton']['names'] ?? null)
            ? array_filter($digest['skeleton']['names'], is_string(...))
            : [];
        $shapes = is_array($digest['morphs'] ?? null) ? array_filter($digest['morphs'], is_string(...)) : [];
        $round = static fn (float $v): float => round($v, 3);

        return [
            'size' => array_map(static fn (int $k): float => $round($b[1][$k] - $b[0][$k]), [0, 1, 2]),
            'triangles' => $digest['triangles'], 'vertices' => $digest['vertices'], 'draws' => $digest['draws'],
            'joints' => is_array($digest['skeleton'] ?? null) && is_array($digest['skeleton']['names'] ?? null)
                ? count($digest['skeleton']['names'])
                : 0,
            'roles' => $roles, 'shapes' => count($shapes), 'style' => $digest['style'] ?? 'plain',
            'mouths' => count(preg_grep('/^(mouth|viseme|jaw|lips?|v_|aa|ee|oh|ou|ih)/i', $shapes) ?: []),
            'eyelids' => (preg_grep('/blink|eye.?(close|lid)/i', $shapes) ?: []) !== [],
            'fingers' => count(preg_grep('/thumb|index|middle|ring|pinky|little|finger/i', $names) ?: []) >= 6,
            'mounts' => array_keys(is_array($digest['mounts'] ?? null) ? $digest['mounts'] : []), 'clips' => $digest['clips'] ?? [],
        ];
    }
}
