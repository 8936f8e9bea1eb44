<?php

declare(strict_types=1);

namespace App\Doors;

use App\Exceptions\UserError;
use App\Models\User;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Cache;
use Illuminate\Support\Facades\Hash;
use Illuminate\Support\Facades\RateLimiter;
use Illuminate\Support\Str;

/**
 * Tries of passwords, counted by the person that is found and by where they come from: however an address is written, it
 * is one person's count.
 */
final class Attempts
{
    private const A_PERSON = 6;

    private const AN_ADDRESS = 40;

    private const SECONDS = 60;

    public static function signIn(Request $request, ?string $email, string $password): ?User
    {
        $user = $email === null ? null : User::query()->where('email', $email)->first();
        // Nobody's tries count too, under the address as given, so that the limit does not tell who exists.
        $keys = [
            'sign-in.'.($user === null ? 'nobody.'.hash('sha256', (string) $email) : "person.{$user->id}") => self::A_PERSON,
            'sign-in.from.'.$request->ip() => self::AN_ADDRESS,
        ];
        foreach ($keys as $key => $most) {
            if (RateLimiter::tooManyAttempts($key, $most)) {
                $seconds = max(1, RateLimiter::availableIn($key));
                throw new UserError(
                    'account.tries',
                    "Too many wrong passwords. It is open again in {$seconds} seconds.",
                    "Wait {$seconds} seconds, or ask for a new password.",
                    429,
                );
            }
        }
        // A password is looked at in any case: it takes as long for nobody as for somebody.
        $fits = Hash::check($password, $user->password ?? self::nobody());
        if ($user === null || ! $fits) {
            array_map(static fn (string $key) => RateLimiter::hit($key, self::SECONDS), array_keys($keys));

            return null;
        }
        RateLimiter::clear("sign-in.person.{$user->id}");

        return $user;
    }

    /** Kept for all: made anew at each call, it would take nobody twice as long as somebody. */
    private static function nobody(): string
    {
        $rounds = config('hashing.bcrypt.rounds');
        $kept = Cache::rememberForever(
            'doors.nobody.'.(is_scalar($rounds) ? $rounds : ''),
            static fn (): string => Hash::make(Str::random(40)),
        );

        return is_string($kept) ? $kept : Hash::make(Str::random(40));
    }
}
