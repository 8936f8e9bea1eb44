<?php

declare(strict_types=1);

namespace App\Renders;

use App\Assets\BlobStore;
use App\Assets\Dresser;
use App\Exceptions\UserError;
use App\Models\RenderJob;
use App\Models\Scene;
use App\Models\User;
use App\Scenes\DocumentBuilder;
use App\Scenes\SceneStream;
use App\Sound\Master;
use App\Sound\SceneSound;
use CrispReel\Core\Bake\PoseStream;
use CrispReel\Core\Compile\CompiledScene;
use CrispReel\Core\Document\Document;
use Illuminate\Support\Facades\Cache;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;

/** Starts, follows, cancels and resumes renders. Each draws the scene as it was when it began. */
final class RenderDesk
{
    private const CHUNK = 96;

    /** @var array<string, CompiledScene> */
    private array $compiled = [];

    public function __construct(
        private readonly BlobStore $blobs,
        private readonly SceneStream $stream,
        private readonly FrameStore $frames,
    ) {
    }

    /** @param  array<string, mixed>  $wish from, to, width, height, format, quality, loudness */
    public function start(Scene $scene, ?User $user, array $wish, ?string $call = null): RenderJob
    {
        // Asked for twice under one name (the answer got lost on its way), it is one render.
        $known = $call === null ? null : RenderJob::query()->where('scene_id', $scene->id)->where('call_id', $call)->first();
        if ($known !== null) {
            return $known;
        }
        $job = $this->prepare($scene, $user, $wish);
        $job->update(['call_id' => $call]);

        return $this->queue($job);
    }

    /**
     * A render that stands ready and is in no queue: nobody draws it but the one who asked (the benchmark).
     *
     * @param  array<string, mixed>  $wish  as of start()
     */
    public function prepare(Scene $scene, ?User $user, array $wish): RenderJob
    {
        $scene->loadMissing('production');
        $document = DocumentBuilder::build($scene);
        $compiled = $this->stream->compileDocument($document);
        $format = FilmFormat::of($wish['format'] ?? null);
        if ($compiled->shots === [] && $format->isSeen()) {
            throw new UserError(
                'render.no-camera',
                'There is no camera on the reel yet.',
                'Make a camera in Cover; the first one is put on the reel at once.',
            );
        }
        $last = $compiled->shots[count($compiled->shots) - 1]->out ?? $compiled->frames;
        $from = (int) ($wish['from'] ?? $compiled->shots[0]->in ?? 0);
        $to = (int) ($wish['to'] ?? $last);
        if ($from >= $to || $to > $last || $from < 0) {
            throw new UserError(
                'render.range',
                "The range {$from} to {$to} is not within the scene.",
                "Choose frames from 0 to {$last}; the end is exclusive.",
            );
        }
        $width = (int) ($wish['width'] ?? $document->width);
        $height = (int) ($wish['height'] ?? $document->height);
        if ($width % 2 !== 0 || $height % 2 !== 0) {
            throw new UserError(
                'render.size',
                "{$width} x {$height} cannot be encoded: video needs even numbers.",
                'Use an even width and height.',
            );
        }
        if (! $format->isSeen() && ! SceneSound::isHeard($compiled, $from, $to)) {
            throw new UserError(
                'render.silent', 'Nothing is heard in these frames.', 'Put a sound or a line there, or let a lane be heard that is muted.',
            );
        }
        $name = FreeName::of(
            $scene,
            (Str::slug("{$scene->production->name} {$scene->name}") ?: 'scene')."-{$from}-{$to}",
            $format->ending(),
        );

        return $this->create(
            $document, $scene->id, $user?->id, $from, $to, $width, $height, $format->value,
            ($wish['quality'] ?? null) === 'draft' ? 'draft' : 'final', $name,
            is_numeric($wish['loudness'] ?? null) ? (float) $wish['loudness'] : Master::LOUDNESS,
        );
    }

    public function create(
        Document $document, ?int $scene, ?int $user, int $from, int $to, int $width, int $height, string $format, string $quality,
        string $name, float $loudness = Master::LOUDNESS,
    ): RenderJob {
        $token = Str::random(48);

        return DB::transaction(function () use (
            $document, $scene, $user, $from, $to, $width, $height, $format, $quality, $name, $loudness, $token,
        ): RenderJob {
            $job = RenderJob::query()->create([
                'scene_id' => $scene, 'user_id' => $user, 'document' => $this->blobs->put($document->toJson()), 'from_frame' => $from,
                'to_frame' => $to, 'width' => $width,
                'height' => $height, 'format' => $format, 'quality' => $quality, 'status' => 'waiting',
                'token_hash' => hash('sha256', $token), 'token' => $token, 'file_name' => $name, 'loudness' => $loudness,
            ]);
            for ($a = $from; $a < $to && FilmFormat::of($format)->isSeen(); $a += self::CHUNK) {
                $job->chunks()->create(['from_frame' => $a, 'to_frame' => min($to, $a + self::CHUNK), 'status' => 'waiting']);
            }

            return $job;
        });
    }

    private function queue(RenderJob $job): RenderJob
    {
        $job->update(['queued' => true]);
        foreach ($job->chunks()->where('status', '!=', 'done')->orderBy('from_frame')->pluck('id') as $chunk) {
            DrawChunk::dispatch((int) $chunk, $job->user_id)->onQueue('render');
        }
        // Nothing is drawn of what is only heard.
        if (! FilmFormat::of($job->format)->isSeen()) {
            JoinRender::once($job);
        }

        return $job;
    }

    /** Queues again what a crash has lost: open chunks, and films that wait to be joined, of which the queue knows nothing. */
    public function goOn(): void
    {
        foreach (RenderJob::query()->where('queued', true)->whereIn(
            'status',
            ['waiting', 'drawing', 'encoding'],
        )->where('created_at', '<', now()->subSeconds(3))->get() as $job) {
            $open = $job->chunks()->where('status', '!=', 'done')->orderBy('from_frame')->pluck('id')
                ->map(static fn (mixed $id): int => (int) $id)->all();
            $waiting = $open === [] ? ["join:{$job->id}"] : array_map(static fn (int $id): string => "chunk:{$id}", $open);
            // Looked at twice with a breath between: a worker that queues its chunk anew is not a lost one.
            $lost = array_diff($waiting, $this->known($waiting));
            if ($lost !== []) {
                usleep(400_000);
                $lost = array_diff($lost, $this->known($lost));
            }
            foreach ($lost as $subject) {
                $open === []
                    ? JoinRender::dispatch($job->id, $job->user_id)->onQueue('render')
                    : DrawChunk::dispatch((int) substr($subject, 6), $job->user_id)->onQueue('render');
            }
        }
    }

    /**
     * @param  list<string>|array<int, string>  $subjects
     * @return list<string> those that stand in the queue
     */
    private function known(array $subjects): array
    {
        return array_values(array_filter(DB::table('jobs')->whereIn('subject', $subjects)->pluck('subject')->all(), is_string(...)));
    }

    public function cancel(RenderJob $job): void
    {
        if (! $job->isOver()) {
            $job->update(['status' => 'cancelled', 'finished_at' => now()]);
        }
    }

    /** Goes on with a cancelled or failed render; frames that are there stay. */
    public function resume(RenderJob $job): void
    {
        if (in_array($job->status, ['waiting', 'drawing', 'encoding'], true)) {
            // It goes on by itself; what got lost of it is looked for now instead of in a few seconds.
            $this->goOn();

            return;
        }
        if ($job->status === 'done') {
            throw new UserError('render.done', 'This render is finished.', 'Play it or download it.', 409);
        }
        // Pages that still draw for the stopped one have another token, and are heard no more.
        $token = Str::random(48);
        $job->update([
            'status' => 'waiting', 'error' => null, 'finished_at' => null, 'queued' => true, 'token' => $token,
            'token_hash' => hash('sha256', $token),
        ]);
        $job->chunks()->where('status', 'drawing')->update(['status' => 'waiting', 'attempts' => 0]);
        $open = $job->chunks()->where('status', '!=', 'done')->exists();
        $open ? $this->queue($job) : JoinRender::once($job);
    }

    /** @return array<string, mixed> */
    public function progress(RenderJob $job): array
    {
        $drawn = $job->status === 'done' ? $job->frames() : count($this->frames->drawn($job));
        $left = $job->frames() - $drawn;

        return [
            'id' => $job->id, 'status' => $job->status, 'from' => $job->from_frame, 'to' => $job->to_frame, 'width' => $job->width,
            'height' => $job->height, 'format' => $job->format,
            'quality' => $job->quality, 'fileName' => $job->file_name, 'frames' => $job->frames(), 'drawn' => $drawn,
            'error' => $job->error, 'msPerFrame' => $job->ms_per_frame,
            'secondsLeft' => $job->ms_per_frame === null || $job->isOver() ? null : (int) ceil($left * $job->ms_per_frame / 1000) + 2,
            'bytes' => $job->status === 'done' ? $job->bytes : null,
            'made' => $job->created_at?->toIso8601String(),
        ];
    }

    /** Milliseconds a frame at 1280x720 by the last finished renders on this installation; null before the first. */
    public function pace(): ?float
    {
        $last = RenderJob::query()->whereNotNull('ms_per_frame')->where('quality', 'final')->orderByDesc('updated_at')->first();

        return $last === null ? null : (float) $last->ms_per_frame * (1280 * 720) / max(1, $last->width * $last->height);
    }

    /** The scene of a render in which something is heard in its frames; null: it is a silent film. */
    public function heard(RenderJob $job): ?CompiledScene
    {
        $document = Document::fromJson($this->blobs->get($job->document));
        // What makes no sound need not be settled for it.
        $isSilent = $document->lines === [] && $document->sounds === [] && ! $document->mix->happens;
        $scene = $isSilent ? null : $this->compiledFor($job);

        return $scene !== null && SceneSound::isHeard($scene, $job->from_frame, $job->to_frame) ? $scene : null;
    }

    private function compiledFor(RenderJob $job): CompiledScene
    {
        return $this->compiled[$job->document] ??= $this->stream->compileDocument(Document::fromJson($this->blobs->get($job->document)));
    }

    /** @return array<string, mixed> */
    public function manifest(RenderJob $job): array
    {
        return $this->stream->manifest($this->compiledFor($job))
            + ['render' => ['width' => $job->width, 'height' => $job->height, 'quality' => $job->quality]];
    }

    /**
     * Pieces of this render's scene, and of no other, whatever their names.
     *
     * @param  array<int, list<string>>  $asked  names by the pieces' numbers
     * @return array<int, array<string, string>>
     */
    public function pieces(RenderJob $job, array $asked): array
    {
        $names = Cache::remember('render-pieces.'.PoseStream::NAMES.".{$job->document}", now()->addHours(6), function () use ($job): array {
            $manifest = $this->stream->manifest($this->compiledFor($job));
            $all = range(0, PoseStream::pieces($this->compiledFor($job)) - 1);

            return array_map(static fn (int $n): array => SceneStream::named($manifest, $n), $all);
        });
        $out = [];
        foreach ($asked as $n => $some) {
            $its = is_array($names) && is_array($names[$n] ?? null) ? array_values(array_intersect($some, $names[$n])) : [];
            $out[$n] = $this->stream->pieces($n, $its, fn (): CompiledScene => $this->compiledFor($job));
        }

        return $out;
    }

    public function uses(RenderJob $job, string $blob): bool
    {
        $from = [$blob, ...array_column(Dresser::origins($blob), 0)];
        foreach (Document::fromJson($this->blobs->get($job->document))->assets as $a) {
            if (in_array($a->blob, $from, true)) {
                return true;
            }
        }

        return false;
    }

    public function rate(RenderJob $job): string
    {
        $rate = Document::fromJson($this->blobs->get($job->document))->rate;

        return "{$rate->num}/{$rate->den}";
    }
}
