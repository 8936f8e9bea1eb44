<?php

declare(strict_types=1);

namespace App\Exceptions;

use CrispReel\Core\CoreFailure;
use Illuminate\Auth\AuthenticationException;
use Illuminate\Database\LostConnectionException;
use Illuminate\Foundation\Configuration\Exceptions;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Validation\ValidationException;
use PDOException;
use Symfony\Component\HttpKernel\Exception\HttpExceptionInterface;
use Throwable;

/** One shape for every error: reason, message, remedy. Nothing of how it is made is told: no classes, no queries, no paths. */
final class ErrorAnswers
{
    /** Reasons and sentences by status, where nobody has said more. */
    private const PLAIN = [
        400 => ['request', 'The server cannot make sense of this call.', 'Load the page again.'],
        401 => ['sign-in', 'You are not signed in.', 'Sign in and try again.'],
        403 => ['forbidden', 'This is not yours to do here.', 'Ask an owner of the production for the right to change it.'],
        404 => ['gone', 'There is no such thing here, or it is not yours to see.', 'Go back to your productions.'],
        405 => ['request', 'This cannot be asked for in this way.', 'Load the page again.'],
        409 => ['conflict', 'Somebody else was faster.', 'Load the page again.'],
        410 => ['gone', 'This has moved on in the meantime.', 'Load the page again.'],
        413 => ['too-large', 'This is larger than is taken.', 'Send it in smaller parts.'],
        419 => ['session', 'Your session has ended.', 'Load the page again and sign in; what you did is saved.'],
        422 => ['input', 'This cannot be taken as it is.', 'Correct it and try again.'],
    ];

    public static function register(Exceptions $exceptions): void
    {
        $exceptions->dontReport([UserError::class, CoreFailure::class]);
        $exceptions->shouldRenderJsonWhen(static fn (Request $r): bool => self::wantsJson($r));
        $exceptions->render(static fn (UserError $e): JsonResponse => self::answer($e->reason, $e->getMessage(), $e->remedy, $e->status));
        $exceptions->render(static function (CoreFailure $e): JsonResponse {
            return self::answer($e->reason(), $e->getMessage(), $e->remedy(), 422);
        });
        $exceptions->render(static function (ValidationException $e): JsonResponse {
            $first = collect($e->errors())->flatten()->first();

            return response()->json([
                'reason' => 'input', 'message' => is_string($first) ? $first : $e->getMessage(), 'remedy' => 'Correct it and try again.',
                'fields' => $e->errors(),
            ], $e->status);
        });
        $exceptions->render(static fn (Throwable $e, Request $r): JsonResponse|Response|null => self::other($e, $r));
    }

    private static function other(Throwable $e, Request $request): JsonResponse|Response|null
    {
        if (self::databaseIsAway($e)) {
            $answer = [
                'database.away', 'The database is away for the moment.',
                'Nothing is lost: what you do is kept on this page and sent when it is back.',
            ];

            return self::wantsJson($request)
                ? self::answer($answer[0], $answer[1], $answer[2], 503)->header('Retry-After', '2')
                : self::page("{$answer[1]} Load this page again in a few seconds.", 503);
        }
        if ($e instanceof AuthenticationException || $e instanceof ValidationException) {
            return self::wantsJson($request) ? self::answer(...[...self::PLAIN[401], 401]) : null;
        }
        $status = $e instanceof HttpExceptionInterface ? $e->getStatusCode() : 500;
        $headers = $e instanceof HttpExceptionInterface ? $e->getHeaders() : [];
        if ($status === 429) {
            $seconds = max(1, (int) (is_numeric($headers['Retry-After'] ?? null) ? $headers['Retry-After'] : 1));

            return self::answer(
                'too-often',
                "You have asked for this more often than is taken. It is open again in {$seconds} second".($seconds === 1 ? '' : 's').'.',
                "Wait {$seconds} second".($seconds === 1 ? '' : 's').' and try again.',
                429,
            )->withHeaders(['Retry-After' => (string) $seconds]);
        }
        [$reason, $message, $remedy] = self::PLAIN[$status]
            ?? ['ours', 'Something went wrong on our side.', 'Try it again; if it stays, tell who runs this installation, with the time.'];

        return self::wantsJson($request)
            ? self::answer($reason, $message, $remedy, $status)->withHeaders(array_filter($headers, is_string(...)))
            : self::page("{$message} {$remedy}", $status);
    }

    /** Whether the database itself cannot be reached, rather than not liking a query (SQLSTATE 08, and the client's own numbers). */
    public static function databaseIsAway(Throwable $e): bool
    {
        for ($cause = $e; $cause !== null; $cause = $cause->getPrevious()) {
            if ($cause instanceof LostConnectionException) {
                return true;
            }
            if ($cause instanceof PDOException) {
                $number = (int) ($cause->errorInfo[1] ?? $cause->getCode());
                if (in_array(
                    $number,
                    [1040, 1053, 1203, 1205, 2002, 2003, 2006, 2013],
                    true,
                ) || str_contains(
                    $cause->getMessage(), 'server has gone away',
                ) || str_contains($cause->getMessage(), 'Connection refused')) {
                    return true;
                }
            }
        }

        return false;
    }

    private static function wantsJson(Request $r): bool
    {
        return $r->is('api/*', 'internal/*') || $r->expectsJson();
    }

    private static function page(string $sentence, int $status): Response
    {
        return response('<!doctype html><meta charset="utf-8"><title>Crisp Reel</title><p>'.e($sentence).'</p>', $status);
    }

    private static function answer(string $reason, string $message, string $remedy, int $status): JsonResponse
    {
        return response()
            ->json(['reason' => $reason, 'message' => $message, 'remedy' => $remedy], $status, [], JSON_INVALID_UTF8_SUBSTITUTE);
    }
}
