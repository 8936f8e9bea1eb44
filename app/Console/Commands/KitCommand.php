<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Assets\HouseKit;
use App\Assets\PictureMaker;
use App\Models\Asset;

final class KitCommand extends ReelCommand
{
    protected $signature = 'reel:kit {--if-empty : do nothing when the kit is there already} {--json}';

    protected $description = 'Put the house kit on the shelves, without the demo and its account; safe to run again';

    protected function work(): int
    {
        if ($this->option('if-empty') !== true || Asset::query()->whereNull('production_id')->doesntExist()) {
            app(HouseKit::class)->install(fn (string $name) => $this->say("Making {$name}"));
            app(PictureMaker::class)->queue();
        }
        $count = Asset::query()->whereNull('production_id')->count();

        return $this->answer(['assets' => $count], ["The house kit holds {$count} assets."]);
    }
}
