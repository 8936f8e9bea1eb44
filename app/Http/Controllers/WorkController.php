<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Models\User;
use App\Models\Work;
use App\Work\Worker;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;

/** What workers do for people, and whether there are any. */
final class WorkController
{
    /** The answer of a request that a worker carries out: 202 while it is not there. */
    public function show(Request $request, string $work): Response|JsonResponse
    {
        /** @var User $user */
        $user = $request->user();
        $found = Work::query()->where('user_id', $user->id)->findOrFail($work);
        if ($found->status !== 'done') {
            $alone = ! Worker::taken()['desk'] && $found->created_at?->lt(now()->subSeconds(8)) === true;

            return response()->json(
                [
                    'work' => $found->id,
                    'status' => $found->status,
                    'says' => $alone
                        ? 'Nobody is there who does this kind of work. It waits; who runs this installation has to start its workers.'
                        : null,
                ],
                202,
            );
        }

        return response((string) $found->answer, $found->code ?? 200, ['Content-Type' => 'application/json']);
    }

    /** Nobody waits for it any more. What a worker has begun is finished all the same. */
    public function destroy(Request $request, string $work): JsonResponse
    {
        /** @var User $user */
        $user = $request->user();
        Work::query()->where('user_id', $user->id)->whereKey($work)->where('status', 'waiting')->where('method', 'GET')->delete();

        return response()->json(['gone' => true]);
    }

    /** Which kinds of work somebody takes, and whether files of other formats can be read. */
    public function health(): JsonResponse
    {
        return response()->json(['taken' => Worker::taken(), 'box' => \App\Isolation\Box::isThere()]);
    }
}
