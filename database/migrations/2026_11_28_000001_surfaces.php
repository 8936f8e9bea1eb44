<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

return new class extends Migration
{
    public function up(): void
    {
        Schema::table('items', static function (Blueprint $t): void {
            $t->json('surfaces')->nullable();
        });
        // A file that was made from another by choosing colours, pictures and finishes: seen by who may see all it was made of.
        Schema::create('dressings', static function (Blueprint $t): void {
            $t->char('key', 64)->primary();
            $t->char('source', 64)->index();
            $t->char('blob', 64)->index();
            $t->json('pictures');
        });
    }

    public function down(): void
    {
        Schema::dropIfExists('dressings');
        Schema::table('items', static function (Blueprint $t): void {
            $t->dropColumn('surfaces');
        });
    }
};
