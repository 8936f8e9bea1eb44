<?php

declare(strict_types=1);

use App\Doors\Address;
use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

return new class extends Migration
{
    public function up(): void
    {
        $this->work();
        $this->doors();
        Schema::table('edits', static function (Blueprint $t): void {
            // Who sends an edit names the call, so that one sent twice counts once.
            $t->char('call_id', 36)->nullable();
            $t->unique(['scene_id', 'call_id']);
        });
        Schema::table('render_jobs', static function (Blueprint $t): void {
            // Only what was put in the queue is put there again when it got lost.
            $t->boolean('queued')->default(false);
            $t->unsignedBigInteger('bytes')->nullable();
            $t->char('call_id', 36)->nullable();
            $t->unique(['scene_id', 'call_id']);
        });
        Schema::table('render_chunks', static function (Blueprint $t): void {
            // Frames that were there when it was last taken up: tries are counted anew when there are more.
            $t->unsignedInteger('drawn')->default(0);
        });
        Schema::table('arrivals', static function (Blueprint $t): void {
            $t->unsignedTinyInteger('tries')->default(0);
        });
    }

    private function work(): void
    {
        Schema::table('jobs', static function (Blueprint $t): void {
            // Whom it is for (turns are taken by person), what it is about, and which worker has it.
            $t->unsignedBigInteger('person')->nullable();
            $t->string('subject', 80)->nullable()->index();
            $t->string('reserved_by', 160)->nullable()->index();
        });
        Schema::create('turns', static function (Blueprint $t): void {
            $t->string('queue', 40);
            $t->unsignedBigInteger('person');
            $t->unsignedBigInteger('number');
            $t->primary(['queue', 'person']);
        });
        Schema::create('workers', static function (Blueprint $t): void {
            $t->string('name', 160)->primary();
            $t->string('host', 120)->index();
            $t->unsignedInteger('pid');
            $t->unsignedBigInteger('started');
            $t->string('queues', 80);
            $t->timestamp('seen_at')->useCurrent();
        });
        Schema::create('works', static function (Blueprint $t): void {
            $t->uuid('id')->primary();
            $t->foreignId('user_id')->constrained()->cascadeOnDelete();
            $t->string('method', 8);
            $t->text('uri');
            $t->longText('body');
            $t->json('files');
            $t->enum('status', ['waiting', 'working', 'done'])->default('waiting');
            $t->unsignedSmallInteger('code')->nullable();
            $t->longText('answer')->nullable();
            $t->timestamps();
            $t->index(['user_id', 'status']);
        });
        Schema::create('cache', static function (Blueprint $t): void {
            $t->string('key')->primary();
            $t->mediumText('value');
            $t->integer('expiration')->index();
        });
        Schema::create('cache_locks', static function (Blueprint $t): void {
            $t->string('key')->primary();
            $t->string('owner');
            $t->integer('expiration')->index();
        });
    }

    private function doors(): void
    {
        // Those that are there take the form in which they are looked for from now on; what has none opens no door, and nobody else's.
        foreach (DB::table('users')->orderBy('id')->get(['id', 'email']) as $user) {
            $form = Address::of($user->email);
            $taken = $form === null || DB::table('users')->where('id', '!=', $user->id)->where('email', $form)->exists();
            DB::table('users')->where('id', $user->id)->update(['email' => $taken ? "unusable-{$user->id}@invalid.example" : $form]);
        }
        // Addresses are one person's by their bytes: a collation that takes é for e would let one in by the other.
        DB::statement('ALTER TABLE users MODIFY email VARCHAR(190) CHARACTER SET ascii COLLATE ascii_bin NOT NULL');
        Schema::create('password_reset_tokens', static function (Blueprint $t): void {
            $t->string('email')->primary();
            $t->string('token');
            $t->timestamp('created_at')->nullable();
        });
        Schema::create('invitations', static function (Blueprint $t): void {
            $t->id();
            $t->foreignId('production_id')->constrained()->cascadeOnDelete();
            $t->foreignId('invited_by')->nullable()->constrained('users')->nullOnDelete();
            $t->string('email', 190)->charset('ascii')->collation('ascii_bin');
            $t->enum('role', ['editor', 'viewer']);
            $t->char('token_hash', 64)->unique();
            $t->timestamp('ends_at')->nullable();
            $t->timestamps();
            $t->unique(['production_id', 'email']);
        });
    }

    public function down(): void
    {
        foreach (['invitations', 'password_reset_tokens', 'cache_locks', 'cache', 'works', 'workers', 'turns'] as $table) {
            Schema::dropIfExists($table);
        }
        Schema::table('jobs', static fn (Blueprint $t) => $t->dropColumn(['person', 'subject', 'reserved_by']));
        Schema::table('arrivals', static fn (Blueprint $t) => $t->dropColumn('tries'));
        Schema::table('render_chunks', static fn (Blueprint $t) => $t->dropColumn('drawn'));
        Schema::table('render_jobs', static fn (Blueprint $t) => $t->dropColumn(['queued', 'bytes']));
        foreach (['edits', 'render_jobs'] as $table) {
            Schema::table($table, static function (Blueprint $t): void {
                // The index also serves the foreign key, which has to go first.
                $t->dropForeign(['scene_id']);
                $t->dropUnique(['scene_id', 'call_id']);
                $t->dropColumn('call_id');
                $t->foreign('scene_id')->references('id')->on('scenes')->cascadeOnDelete();
            });
        }
        DB::statement('ALTER TABLE users MODIFY email VARCHAR(190) CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci NOT NULL');
    }
};
