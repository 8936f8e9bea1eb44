<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Assets\AssetIntake;
use App\Assets\BlobStore;
use App\Edits\Commands\TakeAdd;
use App\Exceptions\UserError;
use App\Intake\FileKinds;
use App\Intake\SizeLimit;
use App\Intake\SoundProbe;
use App\Models\AssetVersion;
use App\Models\Scene;
use App\Models\User;
use App\Policies\Access;
use App\Sound\PeaksShelf;
use App\Speech\Readings;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\UploadedFile;

/** What people record for their lines, and how loud sounds are along their length. */
final class RecordingController
{
    public function __construct(
        private readonly AssetIntake $intake, private readonly SoundProbe $probe, private readonly PeaksShelf $peaks,
        private readonly BlobStore $blobs,
    ) {
    }

    /** Keeps a recording as a sound of the production. What it is a recording of is an edit of its own. */
    public function store(Request $request, Scene $scene): JsonResponse
    {
        Access::change($this->user($request), $scene);
        $file = $request->file('file');
        if (! $file instanceof UploadedFile || ! $file->isValid()) {
            throw new UserError(
                'intake.no-file', 'No recording arrived, or it is larger than the server takes.',
                'At most '.SizeLimit::megabytes().' MB are taken; record a shorter one.',
            );
        }
        SizeLimit::refuse((int) $file->getSize(), 'The recording');
        $ending = FileKinds::ending($file->getClientOriginalName());
        if (! in_array($ending, FileKinds::SOUNDS, true)) {
            throw new UserError('take.file', "\"{$file->getClientOriginalName()}\" is no sound.", 'Taken are WAV, FLAC, Ogg and MP3.');
        }
        $bytes = (string) file_get_contents($file->getRealPath());
        $facts = $this->probe->facts($bytes, $ending);
        if ($facts['seconds'] > TakeAdd::MOST) {
            throw new UserError(
                'take.long', sprintf('The recording is %d s long; one of a line has at most %d.', $facts['seconds'], TakeAdd::MOST),
                'Cut the file into its lines, or put it on a lane of sounds.',
            );
        }
        $picture = $this->probe->picture($bytes, $ending);
        $name = trim(mb_substr(mb_scrub($request->string('name')->toString()), 0, 100));
        $asset = $this->intake->asset($scene->production, 'sound', $name === '' ? 'Recording' : $name, ['sound', 'recording'], '');
        $version = $this->intake->version(
            $asset, $bytes, ['kind' => 'sound'] + $facts, $facts, picture: $picture === null ? null : $this->blobs->put($picture),
        );
        $this->peaks->of($version->blob);

        return response()->json(['asset' => $asset->id, 'seconds' => $facts['seconds']], 201);
    }

    /** How loud a sound of the scene is along its length, to who may see the scene. */
    public function peaks(Request $request, Scene $scene, string $hash): JsonResponse
    {
        Access::see($this->user($request), $scene);
        $isShelved = AssetVersion::query()->where('blob', $hash)->whereHas('asset', static fn ($q) => $q->where('kind', 'sound')->where(
            static fn ($q) => $q->whereNull('production_id')->orWhere('production_id', $scene->production_id),
        ))->exists();
        abort_unless(preg_match('/^[0-9a-f]{64}$/', $hash) === 1 && ($isShelved || Readings::isOf($scene, $hash)), 404);
        $made = $this->peaks->of($hash);

        return response()->json(['perSecond' => $made['perSecond'], 'levels' => base64_encode($made['levels'])])
            ->header('Cache-Control', 'private, max-age=31536000, immutable');
    }

    private function user(Request $request): User
    {
        /** @var User $user */
        $user = $request->user();

        return $user;
    }
}
