<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

return new class extends Migration
{
    public function up(): void
    {
        // How loud a sound is along its length, by its file: a byte for each stretch.
        Schema::create('peaks', static function (Blueprint $t): void {
            $t->char('sound', 64)->primary();
            $t->double('per_second');
            $t->binary('levels');
        });
    }

    public function down(): void
    {
        Schema::dropIfExists('peaks');
    }
};
