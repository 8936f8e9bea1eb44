<?php

declare(strict_types=1);

namespace App\Renders;

use App\Assets\PictureMaker;
use Illuminate\Bus\Queueable;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Bus\Dispatchable;
use Illuminate\Queue\InteractsWithQueue;

/** Draws missing asset pictures in the background. */
final class DrawPictures implements ShouldQueue
{
    use Dispatchable, InteractsWithQueue, Queueable;

    public int $tries = 3;

    public int $timeout = 140;

    public function handle(PictureMaker $maker): void
    {
        if (config('reel.draw_pictures') === true && $maker->make() > 0) {
            self::dispatch()->onQueue('render');
        }
    }
}
