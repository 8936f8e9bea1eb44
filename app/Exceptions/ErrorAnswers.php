<?php

declare(strict_types=1);

namespace App\Exceptions;

use CrispReel\Core\CoreFailure;
use Illuminate\Foundation\Configuration\Exceptions;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Validation\ValidationException;

/** One shape for every error: reason, message, remedy. */
final class ErrorAnswers
{
    public static function register(Exceptions $exceptions): void
    {
        $exceptions->dontReport([UserError::class, CoreFailure::class]);
        $exceptions->shouldRenderJsonWhen(static fn (Request $r): bool => $r->is('api/*', 'internal/*') || $r->expectsJson());
        $exceptions->render(static fn (UserError $e): JsonResponse => self::answer($e->reason, $e->getMessage(), $e->remedy, $e->status));
        $exceptions->render(static function (CoreFailure $e): JsonResponse {
            return self::answer($e->reason(), $e->getMessage(), $e->remedy(), 422);
        });
        $exceptions->render(static function (ValidationException $e): JsonResponse {
            $first = collect($e->errors())->flatten()->first();

            return response()->json([
                'reason' => 'input', 'message' => is_string($first) ? $first : $e->getMessage(), 'remedy' => 'Correct it and try again.', 'fields' => $e->errors(),
            ], $e->status);
        });
    }

    private static function answer(string $reason, string $message, string $remedy, int $status): JsonResponse
    {
        return response()->json(['reason' => $reason, 'message' => $message, 'remedy' => $remedy], $status);
    }
}
