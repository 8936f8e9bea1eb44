<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

return new class extends Migration
{
    public function up(): void
    {
        Schema::table('beats', function (Blueprint $t): void {
            // Where a walk leads, and how the motion is played; null: nothing of it is set.
            $t->json('path')->nullable();
            $t->json('play')->nullable();
        });
        Schema::table('links', function (Blueprint $t): void {
            // What happens when the carry ends.
            $t->enum('release', ['stay', 'fall'])->default('stay');
            $t->json('velocity')->nullable();
        });
        Schema::table('items', function (Blueprint $t): void {
            // A thing's own keys, and a way that it drives along.
            $t->json('moves')->nullable();
            $t->json('route')->nullable();
        });
        Schema::create('touch_ups', function (Blueprint $t): void {
            $t->id();
            $t->foreignId('scene_id')->constrained()->cascadeOnDelete();
            $t->foreignId('item_id')->constrained()->cascadeOnDelete();
            $t->string('joint', 80);
            $t->unsignedInteger('from_frame');
            $t->unsignedInteger('to_frame')->nullable();
            $t->unsignedSmallInteger('ease_in')->default(6);
            $t->unsignedSmallInteger('ease_out')->default(6);
            $t->json('keys');
        });
        Schema::create('contacts', function (Blueprint $t): void {
            $t->id();
            $t->foreignId('scene_id')->constrained()->cascadeOnDelete();
            $t->foreignId('item_id')->constrained()->cascadeOnDelete();
            $t->string('effector', 12);
            $t->foreignId('target_id')->nullable()->constrained('items')->cascadeOnDelete();
            $t->string('mount', 80)->default('');
            $t->json('offset');
            $t->unsignedInteger('from_frame');
            $t->unsignedInteger('to_frame')->nullable();
            $t->unsignedSmallInteger('ease_in')->default(8);
            $t->unsignedSmallInteger('ease_out')->default(8);
            $t->enum('turn', ['keep', 'follow', 'match'])->default('follow');
        });
    }

    public function down(): void
    {
        Schema::dropIfExists('contacts');
        Schema::dropIfExists('touch_ups');
        Schema::table('items', fn (Blueprint $t) => $t->dropColumn(['moves', 'route']));
        Schema::table('links', fn (Blueprint $t) => $t->dropColumn(['release', 'velocity']));
        Schema::table('beats', fn (Blueprint $t) => $t->dropColumn(['path', 'play']));
    }
};
