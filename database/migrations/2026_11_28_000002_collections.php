<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

return new class extends Migration
{
    public function up(): void
    {
        // What a person keeps at hand for all productions.
        Schema::create('collected', static function (Blueprint $t): void {
            $t->foreignId('user_id')->constrained()->cascadeOnDelete();
            $t->foreignId('asset_id')->constrained()->cascadeOnDelete();
            $t->primary(['user_id', 'asset_id']);
        });
    }

    public function down(): void
    {
        Schema::dropIfExists('collected');
    }
};
