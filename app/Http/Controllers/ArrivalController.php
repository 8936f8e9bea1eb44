<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Assets\BlobStore;
use App\Assets\PreviewMaker;
use App\Exceptions\UserError;
use App\Intake\ArrivalDesk;
use App\Intake\FileKinds;
use App\Intake\FileMap;
use App\Intake\ReadDrop;
use App\Intake\SizeLimit;
use App\Intake\SlipWords;
use App\Models\Arrival;
use App\Models\AssetVersion;
use App\Models\Drop;
use App\Models\Production;
use App\Models\User;
use App\Policies\Access;
use App\Renders\DrawPictures;
use CrispReel\Core\Format\Gltf\AssetDigest;
use CrispReel\Core\Format\Gltf\GltfReader;
use CrispReel\Core\Intake\Examination;
use CrispReel\Core\Intake\RecordingCheck;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\UploadedFile;

/** Files that are dropped, and the slips they get. */
final class ArrivalController
{
    /** Repairs that change nothing while a figure stands. */
    private const SHOWN_MOVING = ['unbound', 'skeleton'];

    public function __construct(
        private readonly BlobStore $blobs,
        private readonly ArrivalDesk $desk,
        private readonly PreviewMaker $previews,
    ) {
    }

    /** Some files of a drop, with their paths; the last part of it starts the reading. */
    public function drop(Request $request, Production $production): JsonResponse
    {
        $user = $this->user($request);
        Access::change($user, $production);
        $uuid = $request->string('drop')->toString();
        if (preg_match('/^[0-9a-f-]{36}$/', $uuid) !== 1) {
            throw new UserError('drop.name', 'The drop has no name.', 'Load the page again and drop the files once more.');
        }
        $drop = Drop::query()->firstOrCreate(['production_id' => $production->id, 'uuid' => $uuid], [
            'user_id' => $user->id, 'unused' => [], 'status' => 'open',
        ]);
        if ($drop->status !== 'open') {
            throw new UserError('drop.closed', 'This drop is being read already.', 'Drop the files once more.', 409);
        }
        $paths = $request->input('paths');
        foreach (array_values((array) $request->file('files')) as $n => $file) {
            if ($file instanceof UploadedFile) {
                $this->keep($drop, $file, is_array($paths) && is_string($paths[$n] ?? null) ? $paths[$n] : $file->getClientOriginalName());
            }
        }
        if ($request->boolean('last')) {
            if ($drop->files()->doesntExist()) {
                throw new UserError(
                    'intake.no-file',
                    'No file arrived, or it is larger than the server takes.',
                    'Taken are '.FileKinds::taken().'.',
                );
            }
            $drop->update(['status' => 'waiting']);
            ReadDrop::dispatch($drop->id, $user->id)->onQueue('intake');
        }

        return response()->json(['drop' => $drop->uuid, 'files' => $drop->files()->count()], 201);
    }

    private function keep(Drop $drop, UploadedFile $file, string $path): void
    {
        SizeLimit::refuse((int) $file->getSize(), "\"{$file->getClientOriginalName()}\"");
        if (! $file->isValid()) {
            throw new UserError(
                'intake.too-large',
                "\"{$file->getClientOriginalName()}\" is larger than the server takes.",
                sprintf('At most %d MB are taken; simplify it or split it up.', SizeLimit::megabytes()),
            );
        }
        $plain = mb_substr(FileMap::plain(mb_scrub($path)), -290);
        $bytes = (string) file_get_contents($file->getRealPath());
        $drop->files()->updateOrCreate(['path' => $plain === '' ? 'unnamed' : $plain], [
            'blob' => $this->blobs->put($bytes), 'bytes' => strlen($bytes),
        ]);
    }

    /** Slips, newest first, and what is still being read. */
    public function index(Request $request, Production $production): JsonResponse
    {
        Access::see($this->user($request), $production);
        $arrivals = $production->arrivals()->with('asset')->orderByDesc('id')->limit(200)->get();
        $pace = (float) $arrivals->where('seconds', '>', 0)->sum('bytes')
            / max(0.1, (float) $arrivals->where('seconds', '>', 0)->sum('seconds'));
        // Asked for every second while files are read, so one query and not one a slip.
        $pictures = AssetVersion::query()->whereIn(
            'id',
            AssetVersion::query()->selectRaw('max(id)')->whereIn('asset_id', $arrivals->pluck('asset_id')->filter())->groupBy('asset_id'),
        )->pluck('picture', 'asset_id')->all();
        $open = Drop::query()->where('production_id', $production->id)->whereIn('status', ['waiting', 'reading'])
            ->where('updated_at', '>', now()->subHour())->get();
        $work = $open->map(static function (Drop $d) use ($pace): array {
            $all = $d->arrivals()->get();
            $left = $all->whereIn('status', ['waiting', 'reading']);
            $bytes = $all->isEmpty() ? (int) $d->files()->sum('bytes') : (int) $left->sum('bytes');

            return [
                'drop' => $d->uuid, 'files' => max($all->count(), 1), 'done' => $all->count() - $left->count(),
                'megabytes' => round($bytes / 1048576, 1), 'secondsLeft' => $pace > 0 ? (int) ceil($bytes / $pace) : null,
            ];
        });
        $unused = Drop::query()->where('production_id', $production->id)->where('status', 'done')
            ->where('created_at', '>', now()->subHour())->orderByDesc('id')->limit(5)->get()->pluck('unused');

        return response()->json([
            'arrivals' => $arrivals->map(fn (Arrival $a): array => $this->present($a, $pictures[$a->asset_id] ?? null))->all(),
            'work' => $work->all(),
            'unused' => (object) array_merge(...[[], ...$unused->all()]),
            'brings' => FileKinds::BRINGS,
        ]);
    }

    /** Makes choices about repairs: `choices` of code to values or false, or `all`. */
    public function mend(Request $request, Arrival $arrival): JsonResponse
    {
        Access::change($this->user($request), $arrival->production);
        $choices = $arrival->choices;
        foreach ((array) $request->json('choices') as $code => $with) {
            if (! in_array($code, [...Examination::repairs(), ...RecordingCheck::CODES, 'speed'], true)) {
                throw new UserError('intake.repair', "There is no repair called \"{$code}\".", 'Choose one that the slip lists.');
            }
            $choices[$code] = $with === false ? false : (is_array($with) ? $with : []);
            if ($with === null) {
                unset($choices[$code]);
            }
            if ($code === 'skeleton') {
                // With a skeleton it is a performer, without it is not: judged anew.
                $arrival->kind = null;
            }
        }
        $all = $request->json('all') === true;
        if ($all) {
            // What was undone before is among all.
            $choices = array_filter($choices, static fn (mixed $with): bool => $with !== false);
        }
        $before = $arrival->choices;
        $arrival->update(['choices' => $choices] + (in_array(
            $request->json('kind'),
            ['performer', 'set', 'prop'],
            true,
        ) ? ['kind' => $request->json('kind')] : []));
        $this->desk->examine($arrival, all: $all);
        $arrival->refresh();
        if ($arrival->error !== null) {
            $error = $arrival->error;
            $arrival->update(['choices' => $before, 'error' => null]);
            throw new UserError($error['reason'], $error['message'], $error['remedy']);
        }
        DrawPictures::dispatch()->onQueue('pictures');

        return response()->json($this->alone($arrival->load('asset')));
    }

    /** A turntable of the arrival; `without` and `with` name repairs, to show it before and after. */
    public function preview(Request $request, Arrival $arrival): JsonResponse
    {
        $user = $this->user($request);
        Access::see($user, $arrival->production);
        $code = $request->query('code');
        $version = $arrival->asset?->versions()->with('asset')->orderByDesc('number')->first()
            ?? throw new UserError('arrival.nothing', 'There is nothing to show of it.', 'Mend the file and drop it again.', 404);
        if ($arrival->kind === 'motion') {
            $figure = PreviewMaker::house('oda-ferrant') ?? $version;

            return response()->json(['manifest' => $this->previews->of($user, PreviewMaker::thing($figure), $version)]);
        }
        $thing = PreviewMaker::thing($version);
        if (is_string($code) && in_array($code, Examination::repairs(), true)) {
            $files = new FileMap([$arrival->path => $arrival->original] + $arrival->companions, $this->blobs);
            $choices = $arrival->choices;
            if ($request->query('as') === 'before') {
                $choices[$code] = false;
            } else {
                $choices[$code] = is_array($choices[$code] ?? null) ? $choices[$code] : [];
            }
            $examined = $this->desk->examination($arrival, $this->blobs->get($arrival->original), $files, $choices);
            // The lighter copy is what work is drawn with, so that is what shows the repair.
            $glb = $code === 'heavy' && $request->query('as') !== 'before' ? $examined->light ?? $examined->glb : $examined->glb;
            $digest = AssetDigest::of(GltfReader::read($glb));
            $thing['kind'] = isset($digest['skeleton']) ? $thing['kind'] : 'prop';
            $thing = [
                'blob' => $this->blobs->put($glb),
                'digest' => $this->blobs->put(json_encode($digest, JSON_THROW_ON_ERROR | JSON_PRESERVE_ZERO_FRACTION)),
            ] + $thing;
        }
        $figureMotion = $arrival->kind === 'performer' && $arrival->motions !== [] && $code === null
            ? array_values($arrival->motions)[0]
            : null;
        // What is bound to joints, and how well, shows when they move; a fitted skeleton walks on its turntable.
        $shows = match (true) {
            $thing['kind'] !== 'performer' => null,
            in_array($code, self::SHOWN_MOVING, true) => 'kneel',
            $code === null && $figureMotion === null && is_array($arrival->choices['skeleton'] ?? null) => 'walk',
            default => null,
        };
        if ($shows !== null) {
            return response()
                ->json(['manifest' => $this->previews->of($user, $thing, PreviewMaker::house($shows), $request->boolean('beside'))]);
        }
        $motion = $figureMotion === null
            ? null
            : AssetVersion::query()->with('asset')->where('asset_id', $figureMotion)->orderByDesc('number')->first();

        return response()->json(['manifest' => $this->previews->of($user, $thing, $motion, $request->boolean('beside'))]);
    }

    public function seen(Request $request, Arrival $arrival): JsonResponse
    {
        Access::see($this->user($request), $arrival->production);
        $arrival->update(['seen_at' => now()]);

        return response()->json($this->alone($arrival->load('asset')));
    }

    /** The slip goes; the asset, if it became one, stays in the kit. */
    public function destroy(Request $request, Arrival $arrival): JsonResponse
    {
        Access::change($this->user($request), $arrival->production);
        $arrival->delete();

        return response()->json(['gone' => true]);
    }

    /** @return array<string, mixed> */
    private function alone(Arrival $a): array
    {
        return $this->present($a, $a->asset?->versions()->orderByDesc('number')->value('picture'));
    }

    /** @return array<string, mixed> */
    private function present(Arrival $a, ?string $picture): array
    {
        $slip = is_array($a->slip) ? $a->slip : [];
        $asset = $a->asset;

        return [
            'id' => $a->id, 'name' => $asset->name ?? $a->name, 'path' => $a->path, 'format' => $a->format, 'bytes' => $a->bytes,
            'status' => $a->status, 'kind' => $a->kind, 'assetId' => $a->asset_id,
            'choices' => (object) $a->choices, 'motions' => (object) $a->motions,
            'findings' => array_map(SlipWords::finding(...), $slip['findings'] ?? []),
            'facts' => (object) ($slip['facts'] ?? []), 'parts' => $slip['parts'] ?? null,
            'error' => $a->error, 'seconds' => $a->seconds, 'seen' => $a->seen_at !== null, 'picture' => $picture,
            'blob' => $a->kind === 'sound' ? $a->original : null,
        ];
    }

    private function user(Request $request): User
    {
        /** @var User $user */
        $user = $request->user();

        return $user;
    }
}
