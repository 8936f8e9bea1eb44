<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Assets\PictureMaker;

final class PicturesCommand extends ReelCommand
{
    protected $signature = 'reel:pictures {--again : those of the house anew} {--json}';

    protected $description = 'Draw the pictures of kit assets that have none';

    protected function work(): int
    {
        $maker = app(PictureMaker::class);
        if ((bool) $this->option('again')) {
            $maker->forget();
        }
        for ($made = 0; ($more = $maker->make()) > 0; $made += $more);

        return $this->answer(['made' => $made], ["{$made} pictures drawn."]);
    }
}
