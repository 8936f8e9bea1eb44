<?php

declare(strict_types=1);

namespace Tests;

use App\Assets\HouseKit;
use App\Edits\EditRunner;
use App\Models\Asset;
use App\Models\Edit;
use App\Models\Production;
use App\Models\Scene;
use App\Models\User;
use Illuminate\Foundation\Testing\TestCase as Base;
use Illuminate\Support\Facades\Artisan;

abstract class TestCase extends Base
{
    private static bool $prepared = false;

    protected function setUp(): void
    {
        parent::setUp();
        if (! self::$prepared) {
            // Once a run, outside the tests' transactions: the schema and the house kit.
            Artisan::call('migrate', ['--force' => true]);
            if (! Asset::query()->whereNull('production_id')->exists()) {
                app(HouseKit::class)->install();
            }
            self::$prepared = true;
        }
    }

    protected function person(string $name = 'Ilse Brandt'): User
    {
        return User::query()->create(['name' => $name, 'email' => uniqid('p', true).'@crisp-reel.example', 'password' => 'a long enough word']);
    }

    protected function scene(?User $owner = null, string $role = 'owner'): Scene
    {
        $production = Production::query()->create(['name' => 'Test production', 'rate_num' => 24, 'rate_den' => 1, 'width' => 1280, 'height' => 720]);
        if ($owner !== null) {
            $production->members()->create(['user_id' => $owner->id, 'role' => $role]);
        }

        return $production->scenes()->create(['name' => 'Scene 1', 'mood' => 'dusk']);
    }

    /** @param  list<array<string, mixed>>  $commands */
    protected function edit(Scene $scene, array $commands, ?User $user = null, ?int $base = null): Edit
    {
        return app(EditRunner::class)->run($scene->refresh(), $user, $commands, $base)[0];
    }
}
