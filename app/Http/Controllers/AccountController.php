<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Doors\Address;
use App\Doors\Attempts;
use App\Doors\GoodPassword;
use App\Doors\ResetMail;
use App\Exceptions\UserError;
use App\Models\User;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Auth;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Hash;
use Illuminate\Support\Str;

/** Who comes in: what is answered, and how long it takes, does not tell who has an account. */
final class AccountController
{
    private const RESET_MINUTES = 60;

    public function me(Request $request): JsonResponse
    {
        return $this->person($request->user());
    }

    public function register(Request $request): JsonResponse
    {
        $in = $request->validate(['name' => 'required|string|min:1|max:80']);
        $email = Address::required($request->input('email'));
        $password = GoodPassword::required($request->input('password'), [$in['name'], $email, strtok($email, '@') ?: '']);
        $hash = Hash::make($password);
        // One answer, whether it was free or somebody's: the sign-in that follows tells those who know the password.
        User::query()
            ->insertOrIgnore(['name' => $in['name'], 'email' => $email, 'password' => $hash, 'created_at' => now(), 'updated_at' => now()]);

        return response()->json(['done' => true]);
    }

    public function signIn(Request $request): JsonResponse
    {
        $in = $request->validate(['email' => 'required|string|max:1000', 'password' => 'required|string|max:1000']);
        $user = Attempts::signIn($request, Address::of($in['email']), $in['password']);
        if ($user === null) {
            throw new UserError(
                'account.sign-in',
                'This address and password do not belong together.',
                'Try again, or ask for a new password below.',
            );
        }

        return $this->enter($request, $user);
    }

    public function signOut(Request $request): JsonResponse
    {
        Auth::guard('web')->logout();
        $request->session()->invalidate();
        $request->session()->regenerateToken();

        return response()->json(['done' => true]);
    }

    /** A new password by who knows the old one; all other sessions end. */
    public function change(Request $request): JsonResponse
    {
        /** @var User $user */
        $user = $request->user();
        $in = $request->validate(['old' => 'required|string|max:1000', 'password' => 'required|string|max:1000']);
        if (Attempts::signIn($request, $user->email, $in['old']) === null) {
            throw new UserError('password.old', 'The present password is not right.', 'Type the one that you signed in with.');
        }
        $this->give($user, GoodPassword::required($in['password'], [$user->name, $user->email]), $request->session()->getId());
        Auth::login($user->refresh(), true);
        $request->session()->put('password_hash_web', $user->password);

        return response()->json(['done' => true]);
    }

    /** Asks for a link by mail. The answer is the same whether there is such a person or not, and comes before the mail is made. */
    public function forgot(Request $request): JsonResponse
    {
        $email = Address::of($request->input('email'));
        ResetMail::dispatch($email ?? '')->onQueue('desk');

        return response()->json([
            'done' => true,
            'message' => 'If this address has an account, a link to a new password is on its way. It is good for '.self::RESET_MINUTES
                .' minutes.',
        ]);
    }

    /** A new password by who has the link; every session ends. */
    public function reset(Request $request): JsonResponse
    {
        $in = $request->validate(['token' => 'required|string|max:100', 'password' => 'required|string|max:1000']);
        $email = Address::of($request->input('email')) ?? '';
        $row = DB::table('password_reset_tokens')->where('email', $email)->where('created_at', '>', now()->subMinutes(self::RESET_MINUTES))
            ->first();
        $user = User::query()->where('email', $email)->first();
        // Compared in any case, so that it takes as long for nobody as for somebody.
        $fits = hash_equals(is_string($row?->token) ? $row->token : str_repeat('0', 64), hash('sha256', $in['token']));
        if (! $fits || $user === null) {
            throw new UserError(
                'password.link',
                'This link is not good any more.',
                'Ask for a new one; the newest one counts, for '.self::RESET_MINUTES.' minutes.',
            );
        }
        $password = GoodPassword::required($in['password'], [$user->name, $user->email]);
        DB::table('password_reset_tokens')->where('email', $email)->delete();
        $this->give($user, $password, null);

        return response()->json(['done' => true]);
    }

    /** @param  string|null  $stays  the session that goes on */
    private function give(User $user, string $password, ?string $stays): void
    {
        DB::transaction(static function () use ($user, $password, $stays): void {
            $user->forceFill(['password' => Hash::make($password), 'remember_token' => Str::random(60)])->save();
            DB::table('sessions')->where('user_id', $user->id)->when($stays !== null, static fn ($q) => $q->where('id', '!=', $stays))
                ->delete();
        });
    }

    private function enter(Request $request, User $user): JsonResponse
    {
        Auth::login($user, true);
        $request->session()->regenerate();

        return $this->person($user);
    }

    private function person(?User $user): JsonResponse
    {
        return response()->json(['person' => $user === null ? null : ['id' => $user->id, 'name' => $user->name, 'email' => $user->email]]);
    }
}
