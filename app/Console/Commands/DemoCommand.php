<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Assets\PictureMaker;
use App\Demo\HalfPastTheTide;
use App\Doors\GoodPassword;
use App\Exceptions\UserError;
use App\Models\User;

final class DemoCommand extends ReelCommand
{
    protected $signature = 'reel:demo {--if-empty : do nothing when there are people already} {--with-account : in production, make the demo account too, with a password that is asked for} {--json}';

    protected $description = 'Install the kit and load the demo production; safe to run again';

    protected function work(): int
    {
        if ($this->option('if-empty') && User::query()->exists()) {
            return 0;
        }
        if (app()->isProduction()) {
            $this->askForPassword();
        }
        $scene = app(HalfPastTheTide::class)->load(fn (string $name) => $this->say("Making {$name}"));
        app(PictureMaker::class)->queue();
        $scene->load('production');

        return $this->answer(
            ['production' => $scene->production->name, 'scene' => $scene->id, 'name' => $scene->name, 'revision' => $scene->revision],
            ["{$scene->production->name} / {$scene->name} is scene {$scene->id}."],
        );
    }

    /** The demo's own password is known to everybody: where strangers come, it opens nothing. */
    private function askForPassword(): void
    {
        if ($this->option('with-account') !== true) {
            throw new UserError(
                'demo.production',
                'The demo has an account whose password everybody knows, so it is not loaded here (APP_ENV is production).',
                'Load the kit alone with reel:kit, or add --with-account and type a password.',
            );
        }
        $given = $this->secret('A password for the demo account');
        config(['reel.demo.password' => GoodPassword::required($given, ['crisp-reel', 'half-past-the-tide'])]);
    }
}
