<?php

declare(strict_types=1);

namespace App\Speech;

use App\Models\Scene;
use Illuminate\Bus\Queueable;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Bus\Dispatchable;
use Illuminate\Queue\InteractsWithQueue;
use Throwable;

/** One line read by a voice. A voice that hangs is stopped with its worker; the line keeps its text and says so. */
final class ReadLine implements ShouldQueue
{
    use Dispatchable, InteractsWithQueue, Queueable;

    public int $tries = 2;

    public int $timeout = 40;

    public function __construct(
        public readonly int $sceneId, public readonly int $lineId, public readonly string $key, public readonly ?int $person = null,
        /** What is to be read, of a line that is not there yet; null: as the line has it. */
        public readonly ?Wish $wish = null,
    ) {
    }

    public function handle(Readings $readings): void
    {
        if ($this->wish !== null) {
            $readings->make($this->wish);

            return;
        }
        $scene = Scene::query()->find($this->sceneId);
        $wish = $scene === null ? null : (Readings::wishes($scene)[$this->lineId] ?? null);
        // Changed while it waited: what it is now was asked for by whoever changed it.
        if ($wish === null || $wish->key !== $this->key) {
            Readings::forget($this->key);

            return;
        }
        $readings->make($wish);
    }

    public function failed(?Throwable $e): void
    {
        Readings::refuse($this->key, 'The voice took too long or broke off, and was stopped. Change the line, or choose another voice.');
    }
}
