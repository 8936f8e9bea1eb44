<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Assets\BlobStore;
use App\Exceptions\UserError;
use App\Models\Scene;
use App\Models\User;
use App\Policies\Access;
use App\Scenes\SceneManifests;
use App\Scenes\SceneStream;
use App\Sound\SceneWords;
use App\Speech\Readings;
use App\Speech\VoiceBook;
use App\Speech\VoiceCard;
use App\Speech\Wish;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use Symfony\Component\HttpFoundation\Response;

/** Voices, who has which, and what they have read. */
final class SpeechController
{
    private const SAMPLE = 'The last boat leaves at half past, with or without us. Are you coming?';

    public function __construct(private readonly BlobStore $blobs, private readonly Readings $readings)
    {
    }

    /** The house's voices, whose each performer's is, and what is said otherwise than it is written. */
    public function show(Request $request, Scene $scene): JsonResponse
    {
        Access::see($this->user($request), $scene);
        $sayAs = json_decode((string) DB::table('productions')->where('id', $scene->production_id)->value('say_as'), true);

        return response()->json([
            'voices' => array_values(array_map(
                static fn (VoiceCard $c): array => $c->told(),
                array_filter(VoiceBook::all(), static fn (VoiceCard $c): bool => $c->engine !== 'tones'),
            )),
            'cast' => (object) array_map(static fn (VoiceCard $c): string => $c->id, Readings::voices($scene)),
            'sayAs' => (object) (is_array($sayAs) ? $sayAs : []),
        ]);
    }

    /** Where sounds are heard from, of lanes that are heard from the camera. */
    public function places(Request $request, Scene $scene, SceneManifests $manifests): JsonResponse
    {
        Access::see($this->user($request), $scene);
        $places = $manifests->places($scene);

        return response()->json([
            'lines' => (object) $places['lines'], 'sounds' => (object) $places['sounds'], 'noises' => $places['noises'],
        ]);
    }

    /** The sound of a line, to who may see the scene that it is spoken in. */
    public function sound(Request $request, Scene $scene, string $hash): Response
    {
        Access::see($this->user($request), $scene);
        abort_unless(preg_match('/^[0-9a-f]{64}$/', $hash) === 1 && Readings::isOf($scene, $hash), 404);

        return AssetController::file($this->blobs, $hash, $request->header('Range'));
    }

    /** What is said, as subtitles to take away. */
    public function subtitles(Request $request, Scene $scene, SceneStream $stream, string $as): Response
    {
        Access::see($this->user($request), $scene);
        $compiled = $stream->compile($scene);
        $words = SceneWords::of($compiled, 0, $compiled->frames);
        $name = (Str::slug($scene->name) ?: 'scene').".{$as}";

        return response($as === 'srt' ? $words->srt() : $words->vtt(), 200, [
            'Content-Type' => $as === 'srt' ? 'application/x-subrip; charset=utf-8' : 'text/vtt; charset=utf-8',
            'Content-Disposition' => "attachment; filename=\"{$name}\"", 'Cache-Control' => 'no-store',
        ]);
    }

    /** What a voice sounds like. Read once, by a worker. */
    public function sample(Request $request, Scene $scene, string $voice): JsonResponse
    {
        Access::see($this->user($request), $scene);
        $wish = $this->sampleOf($voice);
        if (! DB::table('readings')->where('key', $wish->key)->whereNotNull('sound')->exists()) {
            DB::table('readings')->insertOrIgnore(['key' => $wish->key, 'asked_at' => now()]);
            $this->readings->make($wish);
        }
        $row = DB::table('readings')->where('key', $wish->key)->first();
        if ($row === null || $row->sound === null) {
            throw new UserError('voice.silent', (string) ($row->problem ?? 'The voice cannot be heard.'), 'Choose another voice.');
        }

        return response()->json(['voice' => $voice, 'seconds' => $row->seconds]);
    }

    public function sampleSound(Request $request, Scene $scene, string $voice): Response
    {
        Access::see($this->user($request), $scene);
        $sound = DB::table('readings')->where('key', $this->sampleOf($voice)->key)->value('sound');
        abort_unless(is_string($sound), 404);

        return AssetController::file($this->blobs, $sound, $request->header('Range'));
    }

    private function sampleOf(string $voice): Wish
    {
        $card = VoiceBook::find($voice) ?? throw new UserError('voice.unknown', 'There is no such voice.', 'Choose one of the list.', 404);

        return new Wish(self::SAMPLE, $card, 'plain', 1.0);
    }

    private function user(Request $request): User
    {
        /** @var User $user */
        $user = $request->user();

        return $user;
    }
}
