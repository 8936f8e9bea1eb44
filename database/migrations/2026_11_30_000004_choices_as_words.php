<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** The core's fields say which words a column takes; said again by the column, a new word would need a migration. */
return new class extends Migration
{
    private const CHOICES = [
        'items' => ['kind' => null], 'beats' => ['root' => 'travel', 'join_kind' => 'carryOn'],
        'links' => ['keep' => 'place', 'release' => 'stay'], 'contacts' => ['turn' => 'follow'],
    ];

    public function up(): void
    {
        foreach (self::CHOICES as $table => $columns) {
            Schema::table($table, static function (Blueprint $t) use ($columns): void {
                foreach ($columns as $column => $default) {
                    $made = $t->string($column, 40)->change();
                    $default === null || $made->default($default);
                }
            });
        }
    }

    public function down(): void
    {
        // The words are the same.
    }
};
