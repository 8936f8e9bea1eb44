<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Assets\PictureMaker;
use App\Demo\HalfPastTheTide;
use App\Models\User;

final class DemoCommand extends ReelCommand
{
    protected $signature = 'reel:demo {--if-empty : do nothing when there are people already} {--json}';

    protected $description = 'Install the kit and load the demo production; safe to run again';

    protected function work(): int
    {
        if ($this->option('if-empty') && User::query()->exists()) {
            return 0;
        }
        $scene = app(HalfPastTheTide::class)->load(fn (string $name) => $this->say("Making {$name}"));
        app(PictureMaker::class)->queue();
        $scene->load('production');

        return $this->answer(
            ['production' => $scene->production->name, 'scene' => $scene->id, 'name' => $scene->name, 'revision' => $scene->revision],
            ["{$scene->production->name} / {$scene->name} is scene {$scene->id}."],
        );
    }
}
