<?php

declare(strict_types=1);

namespace App\Renders;

use App\Assets\PictureMaker;
use Illuminate\Bus\Queueable;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Bus\Dispatchable;
use Illuminate\Queue\InteractsWithQueue;
use Throwable;

/**
 * Draws missing asset pictures in the background: many at once, and where that fails one by one, so that the one at fault
 * is found and marked.
 */
final class DrawPictures implements ShouldQueue
{
    use Dispatchable, InteractsWithQueue, Queueable;

    public int $tries = 2;

    public int $timeout = 200;

    /** @param  int  $singly  how many are to be tried one by one */
    public function __construct(private readonly int $singly = 0)
    {
    }

    public function subject(): string
    {
        return 'pictures';
    }

    public function handle(PictureMaker $maker): void
    {
        if (config('reel.draw_pictures') !== true) {
            return;
        }
        if ($this->singly === 0 && $this->attempts() > 1) {
            self::dispatch(PictureMaker::AT_ONCE)->onQueue('pictures');

            return;
        }
        try {
            $drawn = $this->singly > 0 ? $maker->one() : $maker->make();
        } catch (Throwable $e) {
            report($e);
            self::dispatch($this->singly > 0 ? $this->singly : PictureMaker::AT_ONCE)->onQueue('pictures');

            return;
        }
        if ($drawn > 0) {
            self::dispatch(max(0, $this->singly - 1))->onQueue('pictures');
        }
    }

    /** One that ends its worker is marked before it is drawn, so the others go on. */
    public function failed(): void
    {
        self::dispatch(max(1, $this->singly))->onQueue('pictures')->delay(2);
    }
}
