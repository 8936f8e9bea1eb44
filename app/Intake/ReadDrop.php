<?php

declare(strict_types=1);

namespace App\Intake;

use App\Models\Arrival;
use App\Models\Drop;
use Illuminate\Bus\Queueable;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Bus\Dispatchable;
use Illuminate\Queue\InteractsWithQueue;

/** Reads what was dropped, in the queue, while editing goes on; a large drop in slices, between which others have their turn. */
final class ReadDrop implements ShouldQueue
{
    use Dispatchable, InteractsWithQueue, Queueable;

    private const SLICE_SECONDS = 15.0;

    /** Slices in a row that ended with their worker. */
    private const MOST_CRASHES = 8;

    public int $tries = 3;

    public int $timeout = 200;

    public function __construct(public readonly int $drop, public readonly ?int $person = null, private readonly int $crashes = 0)
    {
    }

    public function subject(): string
    {
        return "drop:{$this->drop}";
    }

    public function handle(DropDesk $desk): void
    {
        $drop = Drop::query()->find($this->drop);
        if ($drop === null || $drop->status === 'done') {
            return;
        }
        if ($this->attempts() > 1) {
            // The last try ended with its worker. Goes on as another job, so that one bad file does not use up the tries of all.
            $this->crashes < self::MOST_CRASHES ? $this->goOn($this->crashes + 1) : $this->failed();

            return;
        }
        $before = $drop->arrivals()->whereIn('status', ['waiting', 'reading'])->count();
        if (! $desk->some($drop, self::SLICE_SECONDS)) {
            $this->goOn($drop->arrivals()->whereIn('status', ['waiting', 'reading'])->count() < $before ? 0 : $this->crashes);
        }
    }

    private function goOn(int $crashes): void
    {
        self::dispatch($this->drop, $this->person, $crashes)->onQueue('intake');
    }

    public function failed(): void
    {
        Arrival::query()->where('drop_id', $this->drop)->whereIn('status', ['waiting', 'reading'])->update([
            'status' => 'refused',
            'error' => json_encode([
                'reason' => 'intake.stopped', 'message' => 'Reading it failed on our side.',
                'remedy' => 'Drop it again; if it fails again, export it as GLB.',
            ]),
        ]);
        Drop::query()->whereKey($this->drop)->update(['status' => 'done']);
    }
}
