<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Work\Worker;
use Illuminate\Console\Command;

final class WorkCommand extends Command
{
    protected $signature = 'reel:work {--queue=render : act, desk, voice, intake, pictures or render; several with commas} {--sleep=0.5 : seconds between looks}';

    protected $description = 'A worker: takes jobs of its queues, under a name, until it is stopped';

    public function handle(): int
    {
        if (function_exists('posix_geteuid') && posix_geteuid() === 0) {
            fwrite(STDERR, "A worker does not run as root. Start it as an ordinary user; bin/start and bin/serve do.\n");

            return 2;
        }
        $queue = $this->option('queue');
        $sleep = $this->option('sleep');
        Worker::begin(is_string($queue) ? $queue : 'render');

        return $this->call('queue:work', [
            '--queue' => $queue, '--sleep' => $sleep, '--tries' => 2, '--timeout' => 300, '--memory' => 900, '--max-time' => 6 * 3600,
            '--quiet' => true,
        ]);
    }
}
