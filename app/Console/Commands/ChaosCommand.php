<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Bench\Chaos;
use App\Exceptions\UserError;

final class ChaosCommand extends ReelCommand
{
    protected $signature = 'reel:chaos {--seconds=600 : how long} {--seed=1 : the same kills in the same order} {--frames=96 : of the film that is rendered meanwhile} {--json}';

    protected $description = 'Kills parts of the running installation, one after the other, while somebody edits and a film is rendered; says whether anything was lost';

    protected function work(): int
    {
        if (app()->isProduction()) {
            throw new UserError(
                'chaos.production',
                'This kills parts of the installation on purpose, so it does not run in production.',
                'Run it on an installation for trials (APP_ENV=local).',
            );
        }
        $result = app(Chaos::class)->run(
            max(5, $this->whole('seconds') ?? 600),
            $this->whole('seed') ?? 1,
            max(8, $this->whole('frames') ?? 96),
            fn (string $text) => $this->say($text),
        );
        $lines = [];
        foreach ($result as $name => $value) {
            $lines[] = sprintf(
                '%-28s %s',
                str_replace('_', ' ', $name),
                is_array($value)
                    ? ($value === [] ? 'none' : implode('; ', $value))
                    : (is_bool($value) ? ($value ? 'yes' : 'NO') : (string) $value),
            );
        }
        $this->answer($result, $lines);

        return $result['lost'] === [] ? 0 : 1;
    }
}
