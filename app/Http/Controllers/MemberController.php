<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Doors\Address;
use App\Exceptions\UserError;
use App\Models\Invitation;
use App\Models\Member;
use App\Models\Production;
use App\Models\User;
use App\Policies\Access;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Mail;
use Illuminate\Support\Str;
use Throwable;

/** Who is in a production, and who is asked to be. Links work without mail: they are shown to be copied. */
final class MemberController
{
    private const DAYS = 14;

    private const MOST = 200;

    public function index(Request $request, Production $production): JsonResponse
    {
        $user = $this->user($request);
        Access::see($user, $production);
        $owner = Access::role($user, $production->id) === 'owner';

        return response()->json([
            'members' => $production->members()->with('user')->orderBy('id')->get()->map(static fn (Member $m): array => [
                'id' => $m->id,
                'name' => $m->user?->name,
                'email' => $owner || $m->user_id === $user->id ? $m->user?->email : null,
                'role' => $m->role,
                'you' => $m->user_id === $user->id,
            ])->all(),
            'invitations' => $owner ? Invitation::query()->where('production_id', $production->id)->orderBy('id')->get()->map(static fn (Invitation $i): array => ['id' => $i->id, 'email' => $i->email, 'role' => $i->role, 'ends' => $i->ends_at?->toIso8601String(), 'over' => $i->ends_at?->isPast() === true])->all() : [],
            'owner' => $owner,
        ]);
    }

    public function invite(Request $request, Production $production): JsonResponse
    {
        $user = $this->owner($request, $production);
        $in = $request->validate(['role' => 'required|in:editor,viewer', 'days' => 'sometimes|integer|between:1,90']);
        $email = Address::required($request->input('email'));
        if ($production->members()->whereHas('user', static fn ($q) => $q->where('email', $email))->exists()) {
            throw new UserError('members.there', "\"{$email}\" is in this production already.", 'Change the role in the list.', 409);
        }
        if (Invitation::query()->where('production_id', $production->id)->count() >= self::MOST) {
            throw new UserError('members.many', 'There are '.self::MOST.' open invitations already.', 'Withdraw some of them first.');
        }
        $token = Str::random(48);
        $invitation = Invitation::query()->updateOrCreate(['production_id' => $production->id, 'email' => $email], [
            'invited_by' => $user->id, 'role' => $in['role'], 'token_hash' => hash('sha256', $token),
            'ends_at' => now()->addDays((int) ($in['days'] ?? self::DAYS)),
        ]);
        $base = config('app.url');
        $link = rtrim($request->getSchemeAndHttpHost() ?: (is_string($base) ? $base : ''), '/')."/join/{$token}";
        // The mail carries the address that is set, and not the one that the request claims to have come to.
        $mailed = $this->mail($email, $user, $production, rtrim(is_string($base) ? $base : '', '/')."/join/{$token}");

        return response()->json(
            ['id' => $invitation->id, 'link' => $link, 'ends' => $invitation->ends_at?->toIso8601String(), 'mailed' => $mailed],
            201,
        );
    }

    private function mail(string $email, User $user, Production $production, string $link): bool
    {
        if (config('mail.default') === 'log') {
            return false;
        }
        try {
            Mail::raw("{$user->name} asks you to join \"{$production->name}\" on Crisp Reel.\n\n{$link}\n\nThe link is for {$email} only.\n", static function ($m) use ($email): void {
                $m->to($email)->subject('You are asked to join a production');
            });

            return true;
        } catch (Throwable $e) {
            report($e);

            return false;
        }
    }

    /** What a link is for, to anyone who has it. */
    public function invitation(Request $request, string $token): JsonResponse
    {
        $i = $this->open($token);

        return response()->json([
            'production' => $i->production->name, 'role' => $i->role, 'email' => $i->email, 'ends' => $i->ends_at?->toIso8601String(),
            'yours' => $request->user()?->email === $i->email,
        ]);
    }

    public function accept(Request $request, string $token): JsonResponse
    {
        $user = $this->user($request);
        $i = $this->open($token);
        if ($i->email !== $user->email) {
            throw new UserError(
                'members.other',
                'This link is for somebody else: you are signed in with another address.',
                "Sign in as {$i->email}, or ask for a link to your own address.",
                403,
            );
        }
        DB::transaction(static function () use ($i, $user): void {
            $i->production->members()->firstOrCreate(['user_id' => $user->id], ['role' => $i->role]);
            $i->delete();
        });

        return response()->json(['production' => $i->production_id, 'scene' => $i->production->scenes()->orderBy('id')->value('id')]);
    }

    public function withdraw(Request $request, Production $production, Invitation $invitation): JsonResponse
    {
        $this->owner($request, $production);
        abort_unless($invitation->production_id === $production->id, 404);
        $invitation->delete();

        return response()->json(['gone' => true]);
    }

    public function change(Request $request, Production $production, Member $member): JsonResponse
    {
        $this->owner($request, $production);
        $in = $request->validate(['role' => 'required|in:owner,editor,viewer']);
        $this->alter($production, $member, static fn () => $member->update(['role' => $in['role']]), $in['role'] === 'owner');

        return $this->index($request, $production);
    }

    /** An owner takes somebody out, or anybody leaves. */
    public function remove(Request $request, Production $production, Member $member): JsonResponse
    {
        $user = $this->user($request);
        Access::see($user, $production);
        abort_unless(Access::role($user, $production->id) === 'owner' || $member->user_id === $user->id, 403);
        $this->alter($production, $member, static fn () => $member->delete(), false);

        return response()->json(['gone' => true]);
    }

    /** A production always has an owner: of two changes at once, the second sees what the first has left. */
    private function alter(Production $production, Member $member, callable $change, bool $staysOwner): void
    {
        abort_unless($member->production_id === $production->id, 404);
        DB::transaction(static function () use ($production, $member, $change, $staysOwner): void {
            $owners = $production->members()->where('role', 'owner')->lockForUpdate()->pluck('id')->all();
            if (! $staysOwner && $owners === [$member->id]) {
                throw new UserError('members.last', 'This is the only owner of the production.', 'Make somebody else an owner first.', 409);
            }
            $change();
        });
    }

    private function open(string $token): Invitation
    {
        $found = Invitation::query()->with('production')->where('token_hash', hash('sha256', $token))->first();
        if ($found === null || $found->ends_at === null || $found->ends_at->isPast()) {
            throw new UserError(
                'members.link',
                'This invitation is not good any more: it has ended, was used, or was withdrawn.',
                'Ask for a new one.',
                404,
            );
        }

        return $found;
    }

    private function owner(Request $request, Production $production): User
    {
        $user = $this->user($request);
        Access::see($user, $production);
        abort_unless(Access::role($user, $production->id) === 'owner', 403);

        return $user;
    }

    private function user(Request $request): User
    {
        /** @var User $user */
        $user = $request->user();

        return $user;
    }
}
