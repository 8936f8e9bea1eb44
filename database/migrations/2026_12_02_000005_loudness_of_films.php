<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

return new class extends Migration
{
    public function up(): void
    {
        Schema::table('render_jobs', static function (Blueprint $t): void {
            $t->float('loudness')->default(-14.0);
        });
    }

    public function down(): void
    {
        Schema::table('render_jobs', static fn (Blueprint $t) => $t->dropColumn('loudness'));
    }
};
