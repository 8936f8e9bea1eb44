<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

return new class extends Migration
{
    public function up(): void
    {
        // What made each shelf of the house kit, so that nothing is made again that would become the same.
        Schema::create('kit_shelves', function (Blueprint $table): void {
            $table->string('shelf', 20)->primary();
            $table->char('made_by', 64);
            $table->unsignedInteger('assets');
        });
    }

    public function down(): void
    {
        Schema::drop('kit_shelves');
    }
};
