<?php

declare(strict_types=1);

namespace App\Doors;

use App\Models\User;
use Illuminate\Bus\Queueable;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Bus\Dispatchable;
use Illuminate\Queue\InteractsWithQueue;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Mail;
use Illuminate\Support\Str;

/**
 * Sends a person the link to a new password; to nobody, nothing. A worker does it, so that the page's answer takes no
 * longer for the one than for the other.
 */
final class ResetMail implements ShouldQueue
{
    use Dispatchable, InteractsWithQueue, Queueable;

    public int $tries = 3;

    public function __construct(private readonly string $email)
    {
    }

    public function handle(): void
    {
        $user = User::query()->where('email', $this->email)->first();
        if ($user === null) {
            return;
        }
        $token = Str::random(48);
        DB::table('password_reset_tokens')
            ->upsert(['email' => $user->email, 'token' => hash('sha256', $token), 'created_at' => now()], ['email']);
        $base = config('app.url');
        $link = rtrim(is_string($base) ? $base : '', '/').'/new-password#'.http_build_query(['email' => $user->email, 'token' => $token]);
        Mail::raw("Somebody, most likely you, has asked for a new password for Crisp Reel.\n\n{$link}\n\nThe link is good for an hour and for once. If you did not ask, leave it: nothing changes.\n", static function ($m) use ($user): void {
            $m->to($user->email)->subject('A new password for Crisp Reel');
        });
    }
}
