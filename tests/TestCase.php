<?php

declare(strict_types=1);

namespace Tests;

use App\Edits\EditRunner;
use App\Models\Edit;
use App\Models\Production;
use App\Models\Scene;
use App\Models\User;
use Illuminate\Foundation\Testing\TestCase as Base;

/** bin/test has brought the schema, the house kit and the demo before; each test's own rows go with its transaction. */
abstract class TestCase extends Base
{
    public function person(string $name = 'Ilse Brandt'): User
    {
        return User::query()->create(['name' => $name, 'email' => uniqid('p', true).'@crisp-reel.example', 'password' => 'a long enough word']);
    }

    public function scene(?User $owner = null, string $role = 'owner'): Scene
    {
        $production = Production::query()->create(['name' => 'Test production', 'rate_num' => 24, 'rate_den' => 1, 'width' => 1280, 'height' => 720]);
        if ($owner !== null) {
            $production->members()->create(['user_id' => $owner->id, 'role' => $role]);
        }

        return $production->scenes()->create(['name' => 'Scene 1', 'mood' => 'dusk']);
    }

    /** @param  list<array<string, mixed>>  $commands */
    public function edit(Scene $scene, array $commands, ?User $user = null, ?int $base = null): Edit
    {
        return app(EditRunner::class)->run($scene->refresh(), $user, $commands, $base)[0];
    }
}
