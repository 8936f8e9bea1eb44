<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Assets\PictureMaker;

final class PicturesCommand extends ReelCommand
{
    protected $signature = 'reel:pictures {--again : also where there is one} {--json}';

    protected $description = 'Draw the pictures of kit assets that have none';

    protected function work(): int
    {
        $made = app(PictureMaker::class)->make((bool) $this->option('again'));

        return $this->answer(['made' => $made], ["{$made} pictures drawn."]);
    }
}
