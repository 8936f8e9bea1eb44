<?php

declare(strict_types=1);

use App\Exceptions\ErrorAnswers;
use App\Http\Middleware\QuietSession;
use App\Http\Middleware\SecurityHeaders;
use Illuminate\Foundation\Application;
use Illuminate\Foundation\Configuration\Exceptions;
use Illuminate\Foundation\Configuration\Middleware;
use Illuminate\Http\Middleware\HandleCors;
use Illuminate\Session\Middleware\StartSession;

return Application::configure(basePath: dirname(__DIR__))
    ->withRouting(web: __DIR__.'/../routes/web.php', commands: __DIR__.'/../routes/console.php')
    ->withMiddleware(function (Middleware $middleware): void {
        // Same-origin application; the package behind this middleware is not in the registry copy.
        $middleware->remove(HandleCors::class);
        $middleware->append(SecurityHeaders::class);
        $middleware->validateCsrfTokens(except: ['internal/*']);
        $middleware->authenticateSessions();
        $middleware->web(replace: [StartSession::class => QuietSession::class]);
        $middleware->redirectGuestsTo('/sign-in');
    })
    ->withExceptions(function (Exceptions $exceptions): void {
        ErrorAnswers::register($exceptions);
    })
    ->create();
