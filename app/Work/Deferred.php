<?php

declare(strict_types=1);

namespace App\Work;

use App\Assets\BlobStore;
use App\Exceptions\UserError;
use App\Intake\SizeLimit;
use App\Models\User;
use App\Models\Work;
use Closure;
use Illuminate\Http\Request;
use Illuminate\Http\UploadedFile;
use Illuminate\Support\Str;
use Symfony\Component\HttpFoundation\Response;

/** Middleware of heavy routes: the request is written down and answered with its number; a worker carries it out. */
final class Deferred
{
    private const MOST_WAITING = 12;

    private const MOST_BYTES = 1 << 20;

    public function __construct(private readonly BlobStore $blobs)
    {
    }

    /** @param  Closure(Request): Response  $next */
    public function handle(Request $request, Closure $next): Response
    {
        /** @var User $user */
        $user = $request->user();
        if (Work::query()->where('user_id', $user->id)->where('status', '!=', 'done')->where(
            'created_at', '>', now()->subMinutes(10),
        )->count() >= self::MOST_WAITING) {
            throw new UserError(
                'work.many',
                'You have asked for '.self::MOST_WAITING.' things that are still being worked on.',
                'Wait until one of them is done, a few seconds, and ask again.',
                429,
            );
        }
        $work = Work::query()->create([
            'id' => (string) Str::uuid7(), 'user_id' => $user->id, 'method' => $request->method(), 'uri' => $request->getRequestUri(),
            'status' => 'waiting',
            'body' => $this->body($request), 'files' => $this->files($request),
        ]);
        // What somebody has decided comes before what they look at on the way.
        DoWork::dispatch($work->id, $user->id)->onQueue($request->isMethod('GET') ? 'desk' : 'act');

        return response()->json(['work' => $work->id], 202);
    }

    private function body(Request $request): string
    {
        $body = $request->isJson()
            ? $request->getContent()
            : (string) json_encode($request->except(array_keys($request->allFiles())), JSON_INVALID_UTF8_SUBSTITUTE);

        return strlen($body) <= self::MOST_BYTES
            ? $body
            : throw new UserError('work.size', 'The call is larger than 1 MB.', 'Load the page again.', 413);
    }

    /** @return array<string, array{name: string, blob: string}> */
    private function files(Request $request): array
    {
        $out = [];
        foreach ($request->allFiles() as $field => $file) {
            if ($file instanceof UploadedFile && $file->isValid()) {
                SizeLimit::refuse((int) $file->getSize());
                $out[(string) $field] = [
                    'name' => mb_substr(mb_scrub($file->getClientOriginalName()), -200),
                    'blob' => $this->blobs->put((string) file_get_contents($file->getRealPath())),
                ];
            }
        }

        return $out;
    }
}
