<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

return new class extends Migration
{
    public function up(): void
    {
        DB::statement("ALTER TABLE assets MODIFY kind ENUM('performer', 'set', 'prop', 'motion', 'sound', 'picture') NOT NULL");
        Schema::table('assets', static function (Blueprint $t): void {
            $t->string('source', 300)->nullable();
            $t->unsignedTinyInteger('colour')->nullable();
            $t->string('folder', 80)->nullable();
            $t->timestamp('archived_at')->nullable();
            $t->index(['production_id', 'kind']);
        });
        Schema::table('asset_versions', static function (Blueprint $t): void {
            // A copy with fewer triangles for work; renders take the whole.
            $t->char('light', 64)->nullable();
        });
        Schema::create('drops', static function (Blueprint $t): void {
            $t->id();
            $t->foreignId('production_id')->constrained()->cascadeOnDelete();
            $t->foreignId('user_id')->constrained()->cascadeOnDelete();
            $t->uuid('uuid');
            $t->enum('status', ['open', 'waiting', 'reading', 'done'])->default('open');
            $t->json('unused');
            $t->timestamps();
            $t->unique(['production_id', 'uuid']);
        });
        Schema::create('drop_files', static function (Blueprint $t): void {
            $t->id();
            $t->foreignId('drop_id')->constrained()->cascadeOnDelete();
            $t->string('path', 300);
            $t->char('blob', 64);
            $t->unsignedBigInteger('bytes');
            $t->unique(['drop_id', 'path']);
        });
        Schema::create('arrivals', static function (Blueprint $t): void {
            $t->id();
            $t->foreignId('production_id')->constrained()->cascadeOnDelete();
            $t->foreignId('drop_id')->nullable()->constrained()->nullOnDelete();
            $t->foreignId('asset_id')->nullable()->constrained()->nullOnDelete();
            $t->string('name', 120);
            $t->string('path', 300);
            $t->string('format', 12);
            $t->char('original', 64);
            $t->unsignedBigInteger('bytes');
            $t->json('companions');
            $t->enum('status', ['waiting', 'reading', 'ready', 'known', 'refused'])->default('waiting');
            $t->string('kind', 12)->nullable();
            $t->json('choices');
            $t->json('motions');
            $t->json('slip')->nullable();
            $t->json('error')->nullable();
            $t->double('seconds')->nullable();
            $t->timestamp('seen_at')->nullable();
            $t->timestamps();
            $t->index(['production_id', 'original']);
        });
    }

    public function down(): void
    {
        foreach (['arrivals', 'drop_files', 'drops'] as $table) {
            Schema::dropIfExists($table);
        }
        Schema::table('asset_versions', static fn (Blueprint $t) => $t->dropColumn('light'));
        DB::table('assets')->whereIn('kind', ['sound', 'picture'])->delete();
        Schema::table('assets', static function (Blueprint $t): void {
            $t->dropColumn(['source', 'colour', 'folder', 'archived_at']);
        });
        DB::statement("ALTER TABLE assets MODIFY kind ENUM('performer', 'set', 'prop', 'motion') NOT NULL");
    }
};
