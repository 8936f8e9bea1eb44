<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Models\User;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Auth;
use Illuminate\Validation\ValidationException;

final class AccountController
{
    public function me(Request $request): JsonResponse
    {
        return $this->person($request->user());
    }

    public function register(Request $request): JsonResponse
    {
        $in = $request->validate([
            'name' => 'required|string|min:1|max:80', 'email' => 'required|email|max:190|unique:users,email', 'password' => 'required|string|min:10|max:200',
        ]);
        $user = User::query()->create($in);
        Auth::login($user);
        $request->session()->regenerate();

        return $this->person($user);
    }

    public function signIn(Request $request): JsonResponse
    {
        $in = $request->validate(['email' => 'required|string', 'password' => 'required|string']);
        if (! Auth::attempt(['email' => $in['email'], 'password' => $in['password']], true)) {
            throw ValidationException::withMessages(['email' => 'This address and password do not belong together.']);
        }
        $request->session()->regenerate();

        return $this->person($request->user());
    }

    public function signOut(Request $request): JsonResponse
    {
        Auth::guard('web')->logout();
        $request->session()->invalidate();
        $request->session()->regenerateToken();

        return response()->json(['done' => true]);
    }

    private function person(?User $user): JsonResponse
    {
        return response()->json(['person' => $user === null ? null : ['id' => $user->id, 'name' => $user->name, 'email' => $user->email]]);
    }
}
