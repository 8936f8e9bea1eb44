<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

return new class extends Migration
{
    public function up(): void
    {
        // What voices have read, by all that it depends on: the same line is read once, in whatever scene.
        Schema::create('readings', static function (Blueprint $t): void {
            $t->id();
            $t->char('key', 64)->unique();
            $t->char('sound', 64)->nullable()->index();
            $t->char('digest', 64)->nullable();
            $t->double('seconds')->nullable();
            $t->string('problem', 400)->nullable();
            $t->dateTime('asked_at')->nullable();
        });
        Schema::table('productions', static function (Blueprint $t): void {
            // Words that voices say otherwise than they are written.
            $t->json('say_as')->nullable();
        });
    }

    public function down(): void
    {
        Schema::dropIfExists('readings');
        Schema::table('productions', static function (Blueprint $t): void {
            $t->dropColumn('say_as');
        });
    }
};
