<?php

declare(strict_types=1);

namespace Tests;

use App\Edits\EditRunner;
use App\Models\Edit;
use App\Models\Production;
use App\Models\Scene;
use App\Models\User;
use App\Models\Work;
use App\Work\DoWork;
use Illuminate\Contracts\Auth\Authenticatable;
use Illuminate\Foundation\Testing\TestCase as Base;
use Illuminate\Testing\TestResponse;

/** bin/test has brought the schema, the house kit and the demo before; each test's own rows go with its transaction. */
abstract class TestCase extends Base
{
    protected function setUp(): void
    {
        parent::setUp();
        // The installation that another suite runs meanwhile has a process of its own.
        config(['reel.warm' => null]);
    }

    /**
     * A call that a worker carries out is carried out at once, and answered as the page gets it in the end.
     *
     * @param  string  $method
     * @param  string  $uri
     * @param  array<mixed>  $parameters
     * @param  array<mixed>  $cookies
     * @param  array<mixed>  $files
     * @param  array<mixed>  $server
     * @param  string|null  $content
     */
    public function call($method, $uri, $parameters = [], $cookies = [], $files = [], $server = [], $content = null): TestResponse
    {
        $response = parent::call($method, $uri, $parameters, $cookies, $files, $server, $content);
        $work = $response->getStatusCode() === 202 && $this->worksAtOnce ? $response->json('work') : null;
        if (! is_string($work)) {
            return $response;
        }
        $this->app->call([new DoWork($work, (int) Work::query()->findOrFail($work)->user_id), 'handle']);

        return parent::call('GET', "/api/works/{$work}", [], $cookies, [], ['HTTP_ACCEPT' => 'application/json'] + $server);
    }

    /** Another person is another browser: what the last one's session knew goes. */
    public function actingAs(Authenticatable $user, $guard = null): static
    {
        $this->app['session']->forget('password_hash_web');

        return parent::actingAs($user, $guard);
    }

    /** False: calls are answered as they come, with the number of the work. */
    protected bool $worksAtOnce = true;

    public function person(string $name = 'Ilse Brandt'): User
    {
        return User::query()
            ->create(['name' => $name, 'email' => uniqid('p', true).'@crisp-reel.example', 'password' => 'a long enough word']);
    }

    public function scene(?User $owner = null, string $role = 'owner'): Scene
    {
        $production = Production::query()
            ->create(['name' => 'Test production', 'rate_num' => 24, 'rate_den' => 1, 'width' => 1280, 'height' => 720]);
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
