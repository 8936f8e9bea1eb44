<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Models\Work;
use App\Renders\RenderDesk;
use App\Scenes\PieceStore;
use App\Work\Worker;
use Illuminate\Console\Command;
use Illuminate\Support\Facades\DB;
use Throwable;

final class PulseCommand extends Command
{
    protected $signature = 'reel:pulse {--once : one round only}';

    protected $description = 'Watches over the workers of this machine: what a dead one had goes on, what got lost is queued again';

    private const SECONDS = 2;

    private const OLD_WORK_HOURS = 2;

    private const OLD_POSES_DAYS = 7.0;

    public function handle(RenderDesk $renders, PieceStore $pieces): int
    {
        for ($round = 0; ; $round++) {
            try {
                Worker::pulse();
                if ($round % 3 === 0) {
                    $renders->goOn();
                }
                if ($round % 1800 === 900) {
                    $pieces->sweep(self::OLD_POSES_DAYS);
                }
                if ($round % 300 === 0) {
                    Work::query()->where('created_at', '<', now()->subHours(self::OLD_WORK_HOURS))->delete();
                }
            } catch (Throwable $e) {
                // The database is away for a moment: the next round connects anew.
                DB::purge();
                if ($this->option('once')) {
                    throw $e;
                }
            }
            if ($this->option('once')) {
                return 0;
            }
            sleep(self::SECONDS);
        }
    }
}
