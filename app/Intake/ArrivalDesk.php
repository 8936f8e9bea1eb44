<?php

declare(strict_types=1);

namespace App\Intake;

use App\Assets\AssetIntake;
use App\Assets\BlobStore;
use App\Assets\StoredAssets;
use App\Exceptions\UserError;
use App\Models\Arrival;
use App\Models\Asset;
use App\Models\AssetVersion;
use CrispReel\Core\Compile\ImportedMotion;
use CrispReel\Core\CoreFailure;
use CrispReel\Core\Document\AssetRef;
use CrispReel\Core\Document\Finding;
use CrispReel\Core\Document\Severity;
use CrispReel\Core\Format\Gltf\AssetDigest;
use CrispReel\Core\Format\Gltf\GltfLimits;
use CrispReel\Core\Format\Gltf\GltfReader;
use CrispReel\Core\Intake\Examination;
use CrispReel\Core\Intake\MotionCheck;
use CrispReel\Core\Intake\PartsList;
use CrispReel\Core\Intake\RecordingCheck;
use CrispReel\Core\Rig\Figure;
use InvalidArgumentException;

/** Examines a file that arrived, keeps its slip, and makes kit assets of it. */
final class ArrivalDesk
{
    public function __construct(
        private readonly BlobStore $blobs,
        private readonly AssetIntake $intake,
        private readonly Converter $converter,
        private readonly SoundProbe $sounds,
        private readonly StoredAssets $stored,
    ) {
    }

    private const MOST_PIXELS = 64 * 1024 * 1024;

    /** Goes over the file with the choices made so far; a failure is kept with the arrival, in plain words. */
    public function examine(Arrival $arrival, ?FileMap $files = null, bool $all = false): void
    {
        $since = microtime(true);
        $arrival->loadMissing(['asset', 'production']);
        $files ??= new FileMap([$arrival->path => $arrival->original] + $arrival->companions, $this->blobs);
        try {
            $this->work($arrival, $files, $all);
            $arrival->update(['status' => 'ready', 'error' => null, 'seconds' => round(microtime(true) - $since, 3)]);
        } catch (UserError $e) {
            $this->refuse($arrival, $e->reason, $e->getMessage(), $e->remedy, $since);
        } catch (CoreFailure $e) {
            $this->refuse($arrival, $e->reason(), $e->getMessage(), $e->remedy(), $since);
        }
    }

    public function refuse(Arrival $arrival, string $reason, string $message, string $remedy, float $since): void
    {
        $arrival->update([
            'status' => $arrival->asset_id === null ? 'refused' : 'ready',
            'error' => ['reason' => $reason, 'message' => mb_scrub($message), 'remedy' => $remedy],
            'seconds' => round(microtime(true) - $since, 3),
        ]);
    }

    private function work(Arrival $arrival, FileMap $files, bool $all): void
    {
        $bytes = $this->blobs->get($arrival->original);
        SizeLimit::refuse(strlen($bytes));
        match (true) {
            $bytes === '' => throw new UserError('intake.nothing', 'The file is empty.', 'It was lost on its way; drop it again.'),
            in_array($arrival->format, FileKinds::MOTIONS, true) => $this->bvh($arrival, $bytes),
            in_array($arrival->format, FileKinds::SOUNDS, true) => $this->sound($arrival, $bytes),
            in_array($arrival->format, FileKinds::PICTURES, true) => $this->picture($arrival, $bytes),
            default => $this->model($arrival, $bytes, $files, $all),
        };
    }

    /** @param  bool  $all  mend all that is safe */
    private function model(Arrival $arrival, string $bytes, FileMap $files, bool $all): void
    {
        $examined = $this->examination($arrival, $bytes, $files, $arrival->choices, $all);
        if ($all) {
            // From here on each repair is a choice of its own, so that each can be undone.
            $done = array_filter($examined->findings, static fn (Finding $f): bool => $f->mended);
            $arrival->choices = $arrival->choices + array_fill_keys(array_map(static fn (Finding $f): string => $f->code, $done), []);
        }
        $figure = $examined->parts->made === [] && $examined->motions !== [];
        $own = null;
        $slip = [
            'findings' => array_map(static fn (Finding $f): array => $f->toArray(), $examined->findings),
            'parts' => $examined->parts->toArray(),
            'missing' => $this->missing($examined->findings),
        ];
        if (! $figure) {
            $digest = AssetDigest::of(GltfReader::read($examined->glb));
            $facts = AssetIntake::facts($digest);
            $asset = $arrival->asset
                ?? $this->intake->asset($arrival->production, $examined->kind, $arrival->name, self::tags($arrival->name), $arrival->path);
            if ($asset->kind !== $examined->kind) {
                $asset->update(['kind' => $examined->kind]);
            }
            $byHand = $this->rolesByHand($asset);
            $version = $this->intake->version($asset, $examined->glb, $digest, $facts, light: $examined->light);
            if ($byHand !== [] && $digest['skeleton'] !== null) {
                $this->intake->roles(
                    $version,
                    array_intersect($byHand, ['', ...array_filter((array) ($digest['skeleton']['names'] ?? []), is_string(...))]),
                );
            }
            $slip['facts'] = $facts;
            $own = $digest['skeleton'] === null ? null : new Figure($version->blob, $digest);
        }
        $motions = $this->motions($arrival, $examined, $own);
        if ($figure) {
            $first = array_values($motions)[0];
            $asset = Asset::query()->findOrFail($first);
            $slip['facts'] = $asset->versions()->orderByDesc('number')->first()->facts ?? [];
            $slip['findings'] = [...$slip['findings'], ...$this->motionFindings($asset)];
        }
        $arrival->fill(['asset_id' => $asset->id, 'kind' => $asset->kind, 'slip' => $slip, 'motions' => $motions])->save();
    }

    /** @return array<string, string> parts that a person has given to joints of the newest version */
    private function rolesByHand(Asset $asset): array
    {
        $version = $asset->versions()->orderByDesc('number')->first();
        $byHand = $version === null ? [] : $this->stored->byHash($version->digest)['rolesByHand'] ?? [];

        return is_array($byHand) ? array_filter(
            $byHand,
            static fn (mixed $joint, int|string $part): bool => is_string($joint) && is_string($part),
            ARRAY_FILTER_USE_BOTH,
        ) : [];
    }

    /** @param  array<string, array<string, mixed>|false>  $choices */
    public function examination(Arrival $arrival, string $bytes, FileMap $files, array $choices, bool $all = false): Examination
    {
        if (in_array($arrival->format, FileKinds::CONVERTED, true)) {
            $key = 'converted/'.hash('sha256', $arrival->original.json_encode($arrival->companions)).'.glb';
            $disk = $this->blobs->disk();
            $glb = $disk->exists($key) ? (string) $disk->get($key) : $this->converter->toGlb($files, $arrival->path, $bytes);
            $disk->exists($key) || $this->blobs->whole($key, $glb);
            $bytes = $glb;
        }
        $kind = in_array($arrival->kind, ['performer', 'set', 'prop'], true) && $arrival->asset_id !== null ? $arrival->kind : null;
        try {
            return Examination::of(
                $bytes, $arrival->format, $choices, $kind, $files->companionOf($arrival->path), $all,
                new GltfLimits(bytes: SizeLimit::bytes()),
            );
        } catch (InvalidArgumentException $e) {
            throw new UserError('intake.value', $e->getMessage(), 'Correct the number and try again.');
        }
    }

    /**
     * @param  list<Finding>  $findings
     * @return list<string>
     */
    private function missing(array $findings): array
    {
        foreach ($findings as $f) {
            if ($f->code === 'pictures') {
                return $f->about;
            }
        }

        return [];
    }

    /** @return array<string, int> name to asset */
    private function motions(Arrival $arrival, Examination $examined, ?Figure $own): array
    {
        $out = [];
        foreach ($examined->motions as $n => $m) {
            $name = count($examined->motions) === 1 && $examined->parts->made === []
                ? $arrival->name
                : self::friendly($m['name']).' ('.$arrival->name.')';
            $name = isset($out[$name]) ? "{$name} ".($n + 1) : $name;
            $asset = isset($arrival->motions[$name]) ? Asset::query()->find($arrival->motions[$name]) : null;
            $asset ??= $this->intake->asset($arrival->production, 'motion', $name, self::tags($name), $arrival->path);
            $digest = ['pace' => $this->pace($arrival)] + $this->left($arrival) + AssetDigest::of(GltfReader::read($m['glb']));
            $this->judgeMotion($asset, $m['glb'], $digest, $name, $own);
            $out[$name] = $asset->id;
        }

        return $out;
    }

    private function pace(Arrival $arrival): float
    {
        $factor = is_array($arrival->choices['speed'] ?? null) ? $arrival->choices['speed']['factor'] ?? 1.0 : 1.0;

        return is_numeric($factor) && $factor > 0.01 && $factor < 100 ? (float) $factor : 1.0;
    }

    /** @return array{leave?: list<string>} what of a recording is left as it came, or mended though it is not unasked */
    private function left(Arrival $arrival): array
    {
        $leave = array_values(
            array_filter(RecordingCheck::CODES, static fn (string $c): bool => ($arrival->choices[$c] ?? null) === false),
        );
        if (is_array($arrival->choices['ground'] ?? null)) {
            $leave[] = '+ground';
        }

        return $leave === [] ? [] : ['leave' => $leave];
    }

    /**
     * @param  array<string, mixed>  $digest
     * @return list<Finding> what was done to a recording without being asked
     */
    private function recorded(string $bytes, array $digest, string $name): array
    {
        [$clip, $skeleton] = ImportedMotion::read($bytes, 0, $name, null);
        $byHand = is_array($digest['rolesByHand'] ?? null) ? array_filter($digest['rolesByHand'], is_string(...)) : [];

        return RecordingCheck::of(
            $clip, $skeleton, array_filter($byHand, is_string(...), ARRAY_FILTER_USE_KEY),
            is_array($digest['leave'] ?? null) ? array_values(array_filter($digest['leave'], is_string(...))) : [],
        );
    }

    /**
     * @param  array<string, mixed>  $digest
     * @param  Figure|null  $own  whom it came with
     */
    private function judgeMotion(Asset $asset, string $bytes, array $digest, string $name, ?Figure $own): void
    {
        $clips = is_array($digest['clips'] ?? null) ? $digest['clips'] : [];
        $version = $this->intake->version($asset, $bytes, $digest, [
            'seconds' => round((float) ($clips[0]['seconds'] ?? 0.0), 3), 'loops' => false, 'travel' => 0.0, 'speed' => 0.0,
        ]);
        // A person's motion is judged on a person of the house, a creature's on the creature.
        $isPersons = isset(AssetDigest::skeletonOfNodes(GltfReader::read($bytes))->roles['hips']) && $own?->isHuman() !== false;
        $figure = $isPersons ? $this->houseFigure() : $own;
        if ($figure !== null) {
            $ref = new AssetRef("a{$asset->id}", 'motion', $name, $version->blob, $version->digest);
            [$table] = ImportedMotion::table($this->stored, $ref, $digest, $figure);
            $check = MotionCheck::of($table, $figure, $name);
            $version->update([
                'facts' => $check->facts + ['frames' => (int) round($check->facts['seconds'] * 24)],
                'findings' => array_map(
                    static fn (Finding $f): array => $f->toArray(),
                    [...$check->findings, ...($isPersons ? $this->recorded($bytes, $digest, $name) : [])],
                ),
            ]);
        }
    }

    /** @return list<mixed> */
    private function motionFindings(Asset $asset): array
    {
        return array_values($asset->versions()->orderByDesc('number')->first()->findings ?? []);
    }

    private function houseFigure(): ?Figure
    {
        $version = AssetVersion::query()->whereHas('asset', static fn ($q) => $q->whereNull('production_id')->where('kind', 'performer'))
            ->orderBy('asset_id')->orderByDesc('number')->first();

        return $version === null ? null : new Figure($version->blob, $this->stored->byHash($version->digest));
    }

    private function bvh(Arrival $arrival, string $bytes): void
    {
        $version = $this->intake->model(
            $arrival->production,
            $bytes,
            $arrival->name,
            'motion',
            self::tags($arrival->name),
            $arrival->asset?->slug,
        );
        $asset = $version->asset()->firstOrFail();
        $asset->update(['source' => $arrival->path]);
        $digest = $this->stored->byHash($version->digest);
        $told = array_values(array_filter($version->findings, is_string(...)));
        if ($this->pace($arrival) !== 1.0) {
            $digest = ['pace' => $this->pace($arrival)] + $digest;
        }
        $digest = $this->left($arrival) + $digest;
        $version = $this->intake->version($asset, $bytes, $digest, $version->facts, $told);
        $findings = array_map(
            static fn (string $text): array => Finding::ofFile(
                'bvh',
                str_contains($text, 'No joint') ? Severity::Harms : Severity::Fyi,
                $text,
                str_contains($text, 'No joint') ? 'That part stays stiff.' : 'Nothing in the picture changes.',
            )->toArray(),
            $told,
        );
        $figure = $this->houseFigure();
        $facts = $version->facts;
        if ($figure !== null && is_array($digest['judged'] ?? null) && isset($digest['judged']['hips'])) {
            [$table] = ImportedMotion::table(
                $this->stored,
                new AssetRef("a{$asset->id}", 'motion', $arrival->name, $version->blob, $version->digest),
                $digest,
                $figure,
            );
            $check = MotionCheck::of($table, $figure, $arrival->name);
            $facts = $check->facts + $facts;
            $version->update(['facts' => $facts]);
            $findings = [...$findings, ...array_map(
                static fn (Finding $f): array => $f->toArray(),
                [...$check->findings, ...$this->recorded($bytes, $digest, $arrival->name)],
            )];
        }
        if (isset($arrival->choices['speed'])) {
            $findings[] = Finding::ofFile(
                'speed', Severity::Harms, 'Its rate was told wrongly.', 'It goes at its right speed now.',
                ['factor' => $this->pace($arrival)], 'Play it at its right speed', safe: true,
            )->mended()->toArray();
        }
        $arrival->fill([
            'asset_id' => $asset->id,
            'kind' => 'motion',
            'slip' => [
                'findings' => $findings, 'facts' => $facts, 'parts' => (new PartsList(1, [$arrival->name], []))->toArray(),
                'missing' => [],
            ],
        ])->save();
    }

    private function sound(Arrival $arrival, string $bytes): void
    {
        $facts = $this->sounds->facts($bytes, $arrival->format);
        $picture = $this->sounds->picture($bytes, $arrival->format);
        $this->plain($arrival, 'sound', $bytes, $facts, $picture === null ? null : $this->blobs->put($picture));
    }

    private function picture(Arrival $arrival, string $bytes): void
    {
        $size = @getimagesizefromstring($bytes);
        if ($size === false || $size[0] < 1 || $size[0] * $size[1] > self::MOST_PIXELS || @imagecreatefromstring($bytes) === false) {
            throw new UserError('picture.unreadable', match (true) {
                $size === false => 'It cannot be read as a picture.',
                $size[0] * $size[1] > self::MOST_PIXELS => sprintf(
                    'The picture has %s megapixels; at most %d are taken.',
                    number_format($size[0] * $size[1] / 1048576),
                    intdiv(self::MOST_PIXELS, 1048576),
                ),
                default => 'The picture is damaged.',
            }, 'Save it again as PNG or JPEG, smaller if it is large.');
        }
        $this->plain($arrival, 'picture', $bytes, ['pixels' => [$size[0], $size[1]]], $arrival->original);
    }

    /** @param  array<string, mixed>  $facts */
    private function plain(Arrival $arrival, string $kind, string $bytes, array $facts, ?string $picture): void
    {
        $asset = $arrival->asset
            ?? $this->intake->asset($arrival->production, $kind, $arrival->name, self::tags($arrival->name), $arrival->path);
        $this->intake->version($asset, $bytes, ['kind' => $kind] + $facts, $facts, picture: $picture);
        $arrival->fill([
            'asset_id' => $asset->id,
            'kind' => $kind,
            'slip' => [
                'findings' => [], 'facts' => $facts, 'parts' => (new PartsList(1, [$arrival->name], []))->toArray(), 'missing' => [],
            ],
        ])->save();
    }

    /** A name for people from a file's: words apart, numbers of export tools gone. */
    public static function friendly(string $path): string
    {
        $name = pathinfo(str_replace('\\', '/', $path), PATHINFO_FILENAME);
        $name = preg_replace(
            [
                '/[|:].*?([^|:]+)$/', '/(?<=[a-z])(?=[A-Z])/', '/[_\-.]+/', '/\b[0-9a-f]{8,}\b/i',
                '/\s+(v\d+|final|export(ed)?|lod\d|\d{3,})\b/i', '/\s+/',
            ],
            ['$1', ' ', ' ', '', '', ' '],
            $name,
        ) ?? '';
        $name = trim($name);

        return mb_substr($name === '' ? 'Unnamed' : mb_strtoupper(mb_substr($name, 0, 1)).mb_substr($name, 1), 0, 100);
    }

    /** @return list<string> */
    public static function tags(string $name): array
    {
        return array_values(array_unique(array_filter(
            preg_split('/[^\p{L}]+/u', mb_strtolower($name)) ?: [],
            static fn (string $w): bool => mb_strlen($w) > 2,
        )));
    }
}
