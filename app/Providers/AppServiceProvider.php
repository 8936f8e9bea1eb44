<?php

declare(strict_types=1);

namespace App\Providers;

use App\Assets\StoredAssets;
use App\Scenes\RowTables;
use App\Work\FairConnector;
use CrispReel\Core\Compile\Memory;
use CrispReel\Core\Document\AssetSource;
use Illuminate\Cache\RateLimiting\Limit;
use Illuminate\Database\DatabaseManager;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Events\MigrationsEnded;
use Illuminate\Database\Events\NoPendingMigrations;
use Illuminate\Http\Request;
use Illuminate\Queue\Queue;
use Illuminate\Queue\QueueManager;
use Illuminate\Support\Facades\Event;
use Illuminate\Support\Facades\RateLimiter;
use Illuminate\Support\ServiceProvider;

final class AppServiceProvider extends ServiceProvider
{
    /** Calls a minute that one person may make, by kind; far more than hands can, and less than hurts. */
    private const A_MINUTE = [
        'looks' => 3000, 'poses' => 6000, 'edits' => 600, 'heavy' => 240, 'uploads' => 300, 'renders' => 60, 'invitations' => 60,
    ];

    public function register(): void
    {
        $this->app->singleton(AssetSource::class, StoredAssets::class);
        $this->app->singleton(Memory::class);
    }

    public function boot(): void
    {
        Model::preventLazyLoading(! $this->app->isProduction());
        foreach (self::A_MINUTE as $kind => $most) {
            RateLimiter::for($kind, static fn (Request $r): Limit => Limit::perMinute($most)->by($kind.'.'.($r->user()->id ?? $r->ip())));
        }
        // At the doors there is no person yet.
        RateLimiter::for('doors', static fn (Request $r): Limit => Limit::perMinute(60)->by('doors.'.$r->ip()));
        RateLimiter::for('register', static fn (Request $r): Limit => Limit::perMinute(10)->by('register.'.$r->ip()));
        RateLimiter::for('reset', static fn (Request $r): Limit => Limit::perMinute(6)->by('reset.'.$r->ip()));
        $this->queue();
        // What the fields of a row say is in its table, whatever the migrations before them say.
        foreach ([MigrationsEnded::class, NoPendingMigrations::class] as $event) {
            Event::listen($event, static function (MigrationsEnded|NoPendingMigrations $e): void {
                $e->method === 'up' && RowTables::complete();
            });
        }
    }

    /** Jobs say whom they are for and what they are about; the queue takes turns by that. */
    private function queue(): void
    {
        $this->app->afterResolving('queue', static function (QueueManager $queues): void {
            $queues->addConnector('database', static fn (): FairConnector => new FairConnector(app(DatabaseManager::class)));
        });
        Queue::createPayloadUsing(static function (string $connection, ?string $queue, array $payload): array {
            $job = is_array($payload['data'] ?? null) ? ($payload['data']['command'] ?? null) : null;

            return is_object($job) ? array_filter([
                'person' => property_exists($job, 'person') ? $job->person : null,
                'subject' => method_exists($job, 'subject') ? $job->subject() : null,
            ], static fn (mixed $v): bool => $v !== null) : [];
        });
    }
}
