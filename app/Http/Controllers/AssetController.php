<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Assets\AssetIntake;
use App\Assets\BlobStore;
use App\Assets\Dresser;
use App\Exceptions\UserError;
use App\Intake\SizeLimit;
use App\Models\AssetVersion;
use App\Models\Production;
use App\Models\User;
use App\Policies\Access;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\UploadedFile;
use Symfony\Component\HttpFoundation\Response;

final class AssetController
{
    public function __construct(private readonly BlobStore $blobs, private readonly AssetIntake $intake)
    {
    }

    /** An asset's file by content hash, to anyone who may use an asset that has it. */
    public function blob(Request $request, string $hash): Response
    {
        /** @var User $user */
        $user = $request->user();
        $productions = Production::query()->whereHas('members', fn ($q) => $q->where('user_id', $user->id))->pluck('id');
        $may = static fn (string $h): bool => AssetVersion::query()
            ->where(fn ($q) => $q->where('blob', $h)->orWhere('picture', $h)->orWhere('light', $h))
            ->whereHas('asset', fn ($q) => $q->whereNull('production_id')->orWhereIn('production_id', $productions))->exists();
        // A dressed file shows all that it was made of.
        $mayOne = $may($hash)
            || array_filter(Dresser::origins($hash), static fn (array $all): bool => array_filter($all, $may) === $all) !== [];
        abort_unless($mayOne && preg_match('/^[0-9a-f]{64}$/', $hash) === 1, 404);

        return self::file($this->blobs, $hash, $request->header('Range'));
    }

    /** The bytes of a blob, or one stretch of them where a player asks for that (RFC 9110, section 14). */
    public static function file(BlobStore $blobs, string $hash, mixed $range = null): Response
    {
        $bytes = $blobs->get($hash);
        $type = match (true) {
            str_starts_with($bytes, 'glTF') => 'model/gltf-binary', str_starts_with($bytes, "\x89PNG") => 'image/png',
            str_starts_with($bytes, "\xFF\xD8") => 'image/jpeg', substr($bytes, 8, 4) === 'WEBP' => 'image/webp',
            str_starts_with($bytes, '{') => 'application/json',
            str_starts_with($bytes, 'RIFF') => 'audio/wav', str_starts_with($bytes, 'fLaC') => 'audio/flac',
            str_starts_with($bytes, 'OggS') => 'audio/ogg',
            str_starts_with($bytes, 'ID3') || (ord($bytes[0] ?? ' ') === 0xFF && (ord($bytes[1] ?? ' ') & 0xE0) === 0xE0) => 'audio/mpeg',
            default => 'application/octet-stream',
        };

        // Not the framework's own response, which takes a stretch of zeros (silence) for an empty one.
        $headers = ['Content-Type' => $type, 'Cache-Control' => 'private, max-age=31536000, immutable', 'Accept-Ranges' => 'bytes'];
        $size = strlen($bytes);
        if (is_string($range) && preg_match('/^bytes=(\d*)-(\d*)$/', $range, $m) === 1 && ($m[1] !== '' || $m[2] !== '')) {
            // "-n" are the last n bytes.
            [$from, $to] = $m[1] === ''
                ? [max(0, $size - (int) $m[2]), $size - 1]
                : [(int) $m[1], $m[2] === '' ? $size - 1 : min((int) $m[2], $size - 1)];

            return $from > $to
                ? new Response('', 416, ['Content-Range' => "bytes */{$size}"] + $headers)
                : new Response(
                    substr($bytes, $from, $to - $from + 1),
                    206,
                    ['Content-Range' => "bytes {$from}-{$to}/{$size}", 'Content-Length' => (string) ($to - $from + 1)] + $headers,
                );
        }

        return new Response($bytes, 200, ['Content-Length' => (string) $size] + $headers);
    }

    /** Brings a file into a production's kit. */
    public function store(Request $request, Production $production): JsonResponse
    {
        /** @var User $user */
        $user = $request->user();
        Access::change($user, $production);
        $file = $request->file('file');
        if (! $file instanceof UploadedFile || ! $file->isValid()) {
            throw new UserError(
                'intake.no-file',
                'No file arrived, or it is larger than the server takes.',
                'Send one GLB or embedded glTF of at most '.SizeLimit::megabytes().' MB.',
            );
        }
        $kind = $request->string('kind')->toString();
        $name = pathinfo($file->getClientOriginalName(), PATHINFO_FILENAME);
        $version = $this->intake->model(
            $production,
            (string) file_get_contents($file->getRealPath()),
            $name === '' ? 'Unnamed' : $name,
            in_array($kind, ['performer', 'set', 'prop', 'motion'], true) ? $kind : null,
        );

        return response()->json(['asset' => $version->asset_id, 'version' => $version->number, 'facts' => $version->facts], 201);
    }
}
