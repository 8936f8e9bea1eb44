<?php

declare(strict_types=1);

namespace App\Bench;

use App\Models\Edit;
use App\Models\Production;
use App\Models\RenderJob;
use App\Models\Scene;
use App\Models\User;
use App\Renders\FrameStore;
use Closure;
use GuzzleHttp\Client;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use Psr\Http\Message\ResponseInterface;
use Random\Engine\Mt19937;
use Random\Randomizer;
use RuntimeException;
use Symfony\Component\Process\Process;
use Throwable;

/**
 * Kills parts of the installation that this runs beside, with no warning (signal 9), in an order given by a seed, while somebody
 * edits a scene over HTTP and a film of it is rendered. Counts what was acknowledged and is not there, or is there twice.
 */
final class Chaos
{
    /** Seconds until the site is well again. */
    private const BACK = 5.0;

    private const BACK_DATABASE = 15.0;

    private const PAUSE_SECONDS = 3.0;

    /** @var list<string> */
    private array $lost = [];

    /** @var array<string, int> edits by the name of their call, to the revision that was answered */
    private array $acknowledged = [];

    private float $slowest = 0.0;

    private float $slowestDatabase = 0.0;

    private int $kills = 0;

    private int $unanswered = 0;

    public function __construct(private readonly FrameStore $frames)
    {
    }

    /**
     * @param  Closure(string): mixed  $say
     * @return array<string, mixed>
     */
    public function run(int $seconds, int $seed, int $frames, Closure $say): array
    {
        $random = new Randomizer(new Mt19937($seed));
        $password = Str::random(24);
        $user = User::query()
            ->create(['name' => 'Chaos', 'email' => Str::lower(Str::random(12)).'@crisp-reel.example', 'password' => $password]);
        $production = Production::query()->create(['name' => 'Chaos', 'rate_num' => 24, 'rate_den' => 1, 'width' => 160, 'height' => 90]);
        $production->members()->create(['user_id' => $user->id, 'role' => 'owner']);
        $scene = $production->scenes()->create(['name' => 'Chaos', 'mood' => 'dusk']);
        $base = config('app.url');
        $visitor = new Visitor(new Client, is_string($base) ? rtrim($base, '/') : '');
        try {
            $visitor->signIn($user->email, $password);
            $item = $this->stage($visitor, $scene);
            $render = $this->asks($visitor, $scene, $frames);
            $end = microtime(true) + $seconds;
            while (microtime(true) < $end) {
                $this->edit($visitor, $scene, $item);
                $part = $this->parts()[$random->getInt(0, count($this->parts()) - 1)];
                usleep($random->getInt(0, 900_000));
                $this->kill($part, $visitor, $scene, $item, $say);
            }
            $this->settle($render, $scene, $say);
        } finally {
            $this->again(static fn () => RenderJob::query()->where('scene_id', $scene->id)->get()->each(function (RenderJob $j): void {
                app(FrameStore::class)->clear($j);
                $j->chunks()->delete();
                $j->delete();
            }));
            $this->again(static fn () => $production->load('scenes')->erase());
            $this->again(static fn () => $user->delete());
        }

        return [
            'seed' => $seed, 'kills' => $this->kills, 'edits_acknowledged' => count($this->acknowledged),
            'calls_sent_again' => $this->unanswered, 'slowest_back_seconds' => round($this->slowest, 2),
            'slowest_back_database_seconds' => round($this->slowestDatabase, 2), 'lost' => $this->lost,
        ];
    }

    private function stage(Visitor $v, Scene $scene): string
    {
        $answer = $this->sent($v, "/api/scenes/{$scene->id}/edits", ['call' => (string) Str::uuid(), 'commands' => [
            ['do' => 'item.add', 'asset' => 'oda-ferrant', 'position' => [0, 0, 0]],
            ['do' => 'beat.add', 'item' => 'Oda', 'motion' => 'wave', 'loops' => 8],
            ['do' => 'camera.add', 'position' => [0, 1.4, 3], 'rotation' => [0, 0, 0, 1], 'focalMm' => 35.0],
        ]]);
        if ($answer === null) {
            throw new RuntimeException('The scene could not be staged.');
        }

        return 'Oda';
    }

    private function asks(Visitor $v, Scene $scene, int $frames): string
    {
        $answer = $this->sent($v, "/api/scenes/{$scene->id}/renders", [
            'call' => (string) Str::uuid(), 'from' => 0, 'to' => $frames, 'width' => 160, 'height' => 90, 'format' => 'mp4',
            'quality' => 'draft',
        ]);

        return is_array($answer) && is_array($answer['render'] ?? null) && is_string($answer['render']['id'] ?? null)
            ? $answer['render']['id']
            : throw new RuntimeException('The render could not be asked for. '.implode(' ', $this->lost));
    }

    private function edit(Visitor $v, Scene $scene, string $item): void
    {
        $call = (string) Str::uuid();
        $answer = $this->sent($v, "/api/scenes/{$scene->id}/edits", [
            'call' => $call,
            'commands' => [['do' => 'item.place', 'item' => $item, 'headingDeg' => (count($this->acknowledged) * 7) % 360]],
        ]);
        if ($answer !== null && is_int($answer['revision'] ?? null)) {
            $this->acknowledged[$call] = $answer['revision'];
        }
    }

    /**
     * Sends until it is answered, as the page does: the same call under the same name.
     *
     * @param  array<string, mixed>  $body
     * @return array<mixed>|null
     */
    private function sent(Visitor $v, string $path, array $body): ?array
    {
        for ($end = microtime(true) + 40.0; microtime(true) < $end; usleep(200_000)) {
            try {
                $r = $v->send('POST', $path, $body, 0, 20.0)->wait();
            } catch (Throwable) {
                $r = null;
            }
            if ($r instanceof ResponseInterface && $r->getStatusCode() < 300) {
                $got = json_decode((string) $r->getBody(), true);

                return is_array($got) ? $got : null;
            }
            if ($r instanceof ResponseInterface && $r->getStatusCode() < 500) {
                $this->lost[] = "{$path} was refused with {$r->getStatusCode()}: ".mb_substr((string) $r->getBody(), 0, 160);

                return null;
            }
            $this->unanswered++;
        }
        $this->lost[] = "{$path} was not answered in 40 s";

        return null;
    }

    /** @param  Closure(string): mixed  $say */
    private function kill(string $part, Visitor $v, Scene $scene, string $item, Closure $say): void
    {
        $pid = $this->pid($part);
        if ($pid === 0) {
            return;
        }
        posix_kill($pid, 9);
        $this->kills++;
        $since = microtime(true);
        $this->edit($v, $scene, $item);
        $limit = $part === 'database' ? self::BACK_DATABASE : self::BACK;
        while (! $this->isWell($v) || in_array($this->pid($part), [0, $pid], true)) {
            if (microtime(true) - $since > 2 * $limit + 10) {
                break;
            }
            usleep(100_000);
        }
        $took = microtime(true) - $since;
        $part === 'database' ? $this->slowestDatabase = max($this->slowestDatabase, $took) : $this->slowest = max($this->slowest, $took);
        $say(sprintf('%-12s back after %.1f s', $part, $took));
        if ($took > $limit) {
            $this->lost[] = sprintf('%s was back after %.1f s only', $part, $took);
        }
        usleep((int) (self::PAUSE_SECONDS * 1e6));
    }

    private function isWell(Visitor $v): bool
    {
        try {
            $r = $v->send('GET', '/up', null, 0, 3.0)->wait();
        } catch (Throwable) {
            return false;
        }

        return $r instanceof ResponseInterface && $r->getStatusCode() === 200;
    }

    /** @param  Closure(string): mixed  $say */
    private function settle(string $render, Scene $scene, Closure $say): void
    {
        $say('Waiting for the film');
        $status = '';
        for ($end = microtime(true) + 180.0; microtime(true) < $end; usleep(500_000)) {
            $status = $this->again(static fn (): mixed => RenderJob::query()->whereKey($render)->value('status'));
            if (in_array($status, ['done', 'failed', 'cancelled'], true)) {
                break;
            }
        }
        $job = RenderJob::query()->findOrFail($render);
        if ($status !== 'done' || ! $this->frames->hasResult($job)) {
            $this->lost[] = "the film is {$job->status}: {$job->error}";
        } elseif ($this->frames->missing($job, $job->from_frame, $job->to_frame) !== []) {
            $this->lost[] = 'frames of the film are missing';
        }
        foreach ($this->acknowledged as $call => $revision) {
            $found = Edit::query()->where('scene_id', $scene->id)->where('call_id', $call)->pluck('revision')->all();
            if ($found !== [$revision]) {
                $this->lost[] = "edit {$call}, acknowledged as revision {$revision}, stands in the journal ".count($found).' times';
            }
        }
        $revisions = Edit::query()->where('scene_id', $scene->id)->orderBy('revision')->pluck('revision')->all();
        if ($revisions !== range(1, count($revisions)) || (int) $scene->refresh()->revision !== count($revisions)) {
            $this->lost[] = 'the journal has gaps';
        }
        if (DB::table('jobs')->whereNotNull('reserved_by')->whereNotIn('reserved_by', DB::table('workers')->select('name'))->exists()) {
            $this->lost[] = 'jobs are held by workers that are gone';
        }
    }

    /** @return non-empty-list<string> names of what can be killed, as the supervisor calls them */
    private function parts(): array
    {
        return [
            'database', 'reel:nginx', 'reel:fpm', 'reel:render-1', 'reel:desk-1', 'reel:intake', 'reel:pulse', 'reel:render-1',
            'reel:render-1',
        ];
    }

    private function pid(string $part): int
    {
        $run = getenv('REEL_RUN');
        $ask = new Process(['/usr/bin/supervisorctl', '-c', "{$run}/supervisord.conf", 'pid', $part]);
        $ask->run();

        return (int) trim($ask->getOutput());
    }

    /**
     * The database may be one of those that were killed.
     *
     * @template T
     *
     * @param  Closure(): T  $work
     * @return T
     */
    private function again(Closure $work): mixed
    {
        for ($try = 1; ; $try++) {
            try {
                return $work();
            } catch (Throwable $e) {
                if ($try > 30) {
                    throw $e;
                }
                DB::purge();
                usleep(500_000);
            }
        }
    }
}
