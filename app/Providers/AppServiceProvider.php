<?php

declare(strict_types=1);

namespace App\Providers;

use App\Assets\StoredAssets;
use CrispReel\Core\Compile\AssetSource;
use Illuminate\Cache\RateLimiting\Limit;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\RateLimiter;
use Illuminate\Support\ServiceProvider;

final class AppServiceProvider extends ServiceProvider
{
    public function register(): void
    {
        $this->app->singleton(AssetSource::class, StoredAssets::class);
    }

    public function boot(): void
    {
        Model::preventLazyLoading(! $this->app->isProduction());
        RateLimiter::for('sign-in', static fn (Request $r): Limit => Limit::perMinute(6)->by(mb_strtolower((string) $r->input('email')).'|'.$r->ip()));
        RateLimiter::for('register', static fn (Request $r): Limit => Limit::perMinute(10)->by((string) $r->ip()));
    }
}
