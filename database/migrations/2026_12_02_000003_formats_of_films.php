<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

return new class extends Migration
{
    public function up(): void
    {
        // A word, so that another kind of film needs no change of the table.
        Schema::table('render_jobs', static function (Blueprint $t): void {
            $t->string('format', 8)->change();
        });
    }

    public function down(): void
    {
        Schema::table('render_jobs', static function (Blueprint $t): void {
            $t->enum('format', ['mp4', 'png'])->change();
        });
    }
};
