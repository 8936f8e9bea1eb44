<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Bench\CoreBench;
use App\Bench\FramingBench;
use App\Bench\GroundBench;
use App\Bench\KitBench;
use App\Bench\LoadBench;
use App\Bench\MeetingBench;
use App\Bench\PerformanceBench;
use App\Bench\PictureBench;
use App\Bench\ToleranceBench;
use App\Demo\HalfPastTheTide;
use App\Exceptions\UserError;
use App\Models\Production;
use App\Models\User;
use App\Scenes\SceneStream;
use Illuminate\Support\Str;
use Symfony\Component\Process\Process;

/** Measures on a copy of the demo scene, which goes again afterwards. */
final class BenchCommand extends ReelCommand
{
    protected $signature = 'reel:bench {--only= : core, kit, performances, tolerances, framing, drawing or waiting} {--edits=40 : edits to time} {--load : thirty readers and five editors at the running installation, and nothing else} {--seconds=60 : how long the load lasts} {--json}';

    protected $description = 'The benchmark: figures and ratios of one run';

    protected function work(): int
    {
        $only = $this->option('only');
        if (! in_array($only, [null, 'core', 'kit', 'performances', 'tolerances', 'framing', 'drawing', 'waiting'], true)) {
            throw new UserError(
                'bench.only',
                'There is no such part of the benchmark.',
                'Use --only=core, --only=kit, --only=performances, --only=tolerances, --only=framing, --only=drawing or --only=waiting.',
            );
        }
        $edits = max(5, $this->whole('edits') ?? 40);
        // What is drawn here is drawn now, not by the queue's workers.
        config(['queue.default' => 'null', 'queue.connections.null' => ['driver' => 'null']]);
        $password = Str::random(24);
        $user = User::query()->create([
            'name' => 'Benchmark', 'email' => 'bench-'.Str::lower(Str::random(10)).'@crisp-reel.example', 'password' => $password,
        ]);
        $production = null;
        $server = null;
        try {
            $this->say('Building the scene');
            $scene = app(HalfPastTheTide::class)->build($production = $this->production($user));
            if ($this->option('load') === true) {
                $this->say('Thirty readers and five editors');
                $load = ['load' => app(LoadBench::class)->run($scene->load('production'), 30, 5, max(5, $this->whole('seconds') ?? 60))];

                return $this->answer($load, self::lines($load));
            }
            $data = ['machine' => ['cores' => self::cores(), 'php' => PHP_VERSION, 'jit' => self::jit()]];
            if ($only === null || $only === 'core') {
                $this->say('Core');
                $core = app(CoreBench::class);
                $core->scene($scene); // motions are solved once and kept; that is not what is measured
                $data['core'] = $core->scene($scene);
                $data['against_three'] = $core->againstThree(app(SceneStream::class)->compile($scene));
            }
            if ($only === null || $only === 'kit') {
                $this->say('Kit');
                $data['kit'] = app(KitBench::class)->all($this->production($user), $user);
            }
            if ($only === null || $only === 'performances') {
                $this->say('Performances');
                $data += app(PerformanceBench::class)->all($scene, $this->production($user));
                $data['meetings'] = app(MeetingBench::class)->all();
                $data['ground_and_recordings'] = app(GroundBench::class)->all($scene);
            }
            if ($only === null || $only === 'tolerances') {
                $this->say('Tolerances');
                $data['tolerances_reached_and_bar'] = app(ToleranceBench::class)->all($scene, $this->production($user));
            }
            if ($only === null || $only === 'framing') {
                $this->say('Framing');
                $data += app(FramingBench::class)->all($scene);
            }
            if (! in_array($only, ['core', 'kit', 'performances', 'tolerances', 'framing'], true)) {
                $server = $this->runs() ? null : $this->server();
                $data['server'] = ['which' => $server === null ? 'the running installation' : 'one of its own'];
                $pictures = app(PictureBench::class);
                if ($only !== 'waiting') {
                    $this->say('Drawing');
                    $data['draft'] = $pictures->drawing($scene, 'draft', 960, 540);
                    $data['final'] = $pictures->drawing($scene, 'final', 1280, 720);
                }
                if ($only !== 'drawing') {
                    $this->say('Waiting');
                    $data['waiting'] = $pictures->waiting($scene, $user, $password, $edits);
                }
            }
        } finally {
            // The server's workers are its children: the whole group goes.
            $pid = $server?->getPid();
            if ($pid !== null) {
                posix_kill(-$pid, SIGTERM);
            }
            $server?->stop(2);
            Production::query()->with('scenes')->whereHas('members', fn ($q) => $q->where('user_id', $user->id))->get()
                ->each(static fn (Production $p) => $p->erase());
            $user->delete();
        }

        return $this->answer($data, self::lines($data));
    }

    private function production(User $user): Production
    {
        $p = Production::query()->create(['name' => 'Benchmark', 'rate_num' => 24, 'rate_den' => 1, 'width' => 1280, 'height' => 720]);
        $p->members()->create(['user_id' => $user->id, 'role' => 'owner']);

        return $p;
    }

    /** A web server of its own on a free port, with four workers like the one that people use. */
    /** The installation that is running, as people meet it; without one the benchmark brings a plain server. */
    private function runs(): bool
    {
        $url = config('reel.internal_url');

        return is_string($url) && @file_get_contents("{$url}/up") !== false;
    }

    private function server(): Process
    {
        $socket = stream_socket_server('tcp://127.0.0.1:0');
        $name = $socket === false ? '' : (string) stream_socket_get_name($socket, false);
        if ($socket !== false) {
            fclose($socket);
        }
        $port = (int) substr($name, (int) strrpos($name, ':') + 1);
        $url = "http://127.0.0.1:{$port}";
        $p = new Process(
            ['setsid', PHP_BINARY, '-S', "127.0.0.1:{$port}", '-t', 'public', 'bin/lib/router.php'],
            base_path(),
            ['PHP_CLI_SERVER_WORKERS' => '4', 'APP_URL' => $url, 'REEL_INTERNAL_URL' => $url],
        );
        $p->setTimeout(null)->disableOutput()->start();
        config(['reel.internal_url' => $url]);
        for ($i = 0; $i < 100; $i++) {
            if (@file_get_contents("{$url}/up") !== false) {
                return $p;
            }
            usleep(100_000);
        }
        $p->stop(1);
        throw new \RuntimeException('The benchmark\'s web server did not answer.');
    }

    private static function cores(): int
    {
        return max(1, substr_count((string) @file_get_contents('/proc/cpuinfo'), "\nprocessor") + 1);
    }

    private static function jit(): bool
    {
        $status = function_exists('opcache_get_status') ? @opcache_get_status(false) : false;

        return is_array($status) && is_array($status['jit'] ?? null) && ($status['jit']['on'] ?? false) === true;
    }

    /**
     * @param  array<string, array<string, mixed>>  $data
     * @return list<string>
     */
    private static function lines(array $data): array
    {
        $out = [];
        foreach ($data as $part => $figures) {
            $out[] = str_replace('_', ' ', $part);
            foreach ($figures as $name => $v) {
                $text = is_float($v)
                    ? ($v !== 0.0 && abs($v) < 0.01 ? sprintf('%.2e', $v) : sprintf('%.2f', $v))
                    : (is_scalar($v) ? var_export($v, true) : '');
                $out[] = sprintf('  %-32s %s', str_replace('_', ' ', $name), trim($text, "'"));
            }
        }

        return $out;
    }
}
