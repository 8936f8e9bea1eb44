<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Exceptions\UserError;

/** What every start does before the parts run, in one process: each further one costs the start half a second. */
final class ReadyCommand extends ReelCommand
{
    protected $signature = 'reel:ready
        {--database : bring the database up to date, and load the kit or the demo when it is empty}
        {--json}';

    protected $description = 'Get this installation ready to run; called by bin/start and bin/serve';

    protected function work(): int
    {
        if ($this->option('database') === true) {
            $this->step('migrate', ['--force' => true]);
            $this->step(app()->isProduction() ? 'reel:kit' : 'reel:demo', ['--if-empty' => true]);
        }
        // What an earlier version has kept may not fit this one; settings and routes are read once, not at each call.
        $this->step('cache:clear');
        $this->step('config:cache');
        $this->step('route:cache');

        return $this->answer(['ready' => true], ['Ready.']);
    }

    /** @param  array<string, bool>  $options */
    private function step(string $command, array $options = []): void
    {
        if ($this->callSilently($command, $options) !== 0) {
            throw new UserError(
                'ready.failed',
                "This installation cannot be got ready: {$command} failed.",
                'See storage/logs/laravel.log.',
            );
        }
    }
}
