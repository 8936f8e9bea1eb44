<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Assets\BlobStore;
use App\Models\RenderJob;
use App\Models\Scene;
use App\Models\User;
use App\Policies\Access;
use App\Renders\FilmFormat;
use App\Renders\FrameStore;
use App\Renders\RenderDesk;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\BinaryFileResponse;
use Symfony\Component\HttpFoundation\Response;

final class RenderController
{
    public function __construct(private readonly RenderDesk $desk, private readonly FrameStore $frames, private readonly BlobStore $blobs)
    {
    }

    public function index(Request $request, Scene $scene): JsonResponse
    {
        Access::see($this->user($request), $scene);
        $jobs = RenderJob::query()->where('scene_id', $scene->id)->orderByDesc('created_at')->limit(20)->get();

        return response()
            ->json(['renders' => $jobs->map(fn (RenderJob $j): array => $this->desk->progress($j))->all(), 'pace' => $this->desk->pace()]);
    }

    public function store(Request $request, Scene $scene): JsonResponse
    {
        Access::change($this->user($request), $scene);
        $in = $request->validate([
            'from' => 'sometimes|integer|min:0', 'to' => 'sometimes|integer|min:1', 'width' => 'sometimes|integer|min:64|max:4096',
            'height' => 'sometimes|integer|min:64|max:4096',
            'format' => 'sometimes|in:mp4,webm,png,wav,stems', 'loudness' => 'sometimes|numeric|between:-40,-8',
            'quality' => 'sometimes|in:draft,final', 'call' => 'sometimes|uuid',
        ]);
        $job = $this->desk->start($scene, $this->user($request), $in, is_string($in['call'] ?? null) ? strtolower($in['call']) : null);

        return response()->json(['render' => $this->desk->progress($job)], 201);
    }

    public function cancel(Request $request, RenderJob $render): JsonResponse
    {
        Access::change($this->user($request), $this->scene($render));
        $this->desk->cancel($render);

        return response()->json(['render' => $this->desk->progress($render->refresh())]);
    }

    public function resume(Request $request, RenderJob $render): JsonResponse
    {
        Access::change($this->user($request), $this->scene($render));
        $this->desk->resume($render);

        return response()->json(['render' => $this->desk->progress($render->refresh())]);
    }

    public function file(Request $request, RenderJob $render): Response
    {
        Access::see($this->user($request), $this->scene($render));
        abort_unless($render->status === 'done' && $this->frames->hasResult($render), 404);
        $response = new BinaryFileResponse(
            $this->frames->result($render),
            200,
            ['Content-Type' => FilmFormat::of($render->format)->mime()],
        );
        $response->setContentDisposition(
            $request->boolean('download') || ! FilmFormat::of($render->format)->isFilm() ? 'attachment' : 'inline',
            $render->file_name,
        );

        return $response;
    }

    /** Manifest for the drawing page: the scene as it was when the render began. */
    public function manifest(Request $request, RenderJob $render): JsonResponse
    {
        $this->token($request, $render);

        return response()->json($this->desk->manifest($render));
    }

    public function pieces(Request $request, RenderJob $render): Response
    {
        $this->token($request, $render);
        $asked = SceneController::asked($request);

        return SceneController::packed($asked, $this->desk->pieces($render, $asked));
    }

    public function blob(Request $request, RenderJob $render, string $hash): Response
    {
        $this->token($request, $render);
        abort_unless($this->desk->uses($render, $hash), 404);

        return AssetController::file($this->blobs, $hash);
    }

    public function frame(Request $request, RenderJob $render, int $frame): JsonResponse
    {
        $this->token($request, $render);
        $bytes = $request->getContent();
        abort_unless($frame >= $render->from_frame && $frame < $render->to_frame && $this->isFrame($render, $bytes), 422);
        $this->frames->put($render, $frame, $bytes);

        return response()->json(['kept' => $frame]);
    }

    /** A picture of the asked size, as its decoded content says. */
    private function isFrame(RenderJob $render, string $bytes): bool
    {
        $size = str_starts_with($bytes, "\x89PNG") && strlen($bytes) < 60_000_000 ? @getimagesizefromstring($bytes) : false;

        return $size !== false && $size[2] === IMAGETYPE_PNG && $size[0] === $render->width && $size[1] === $render->height
            && @imagecreatefromstring($bytes) !== false;
    }

    private function token(Request $request, RenderJob $render): void
    {
        $given = (string) ($request->header('X-Render-Token') ?? $request->query('token', ''));
        abort_unless($given !== '' && hash_equals($render->token_hash, hash('sha256', $given)) && ! $render->isOver(), 404);
    }

    private function scene(RenderJob $render): Scene
    {
        return Scene::query()->findOrFail($render->scene_id);
    }

    private function user(Request $request): User
    {
        /** @var User $user */
        $user = $request->user();

        return $user;
    }
}
