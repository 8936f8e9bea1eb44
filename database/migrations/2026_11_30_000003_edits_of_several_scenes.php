<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

return new class extends Migration
{
    public function up(): void
    {
        // An edit that reaches into several scenes is journalled in each; those in the others are parts of the one.
        Schema::table('edits', function (Blueprint $table): void {
            $table->foreignId('part_of_id')->nullable()->constrained('edits')->cascadeOnDelete();
        });
    }

    public function down(): void
    {
        Schema::table('edits', function (Blueprint $table): void {
            $table->dropConstrainedForeignId('part_of_id');
        });
    }
};
