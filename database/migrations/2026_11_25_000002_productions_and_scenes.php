<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

return new class extends Migration
{
    public function up(): void
    {
        Schema::create('productions', function (Blueprint $t): void {
            $t->id();
            $t->string('name', 120);
            $t->unsignedInteger('rate_num')->default(24);
            $t->unsignedInteger('rate_den')->default(1);
            $t->unsignedSmallInteger('width')->default(1280);
            $t->unsignedSmallInteger('height')->default(720);
            $t->timestamps();
        });
        Schema::create('members', function (Blueprint $t): void {
            $t->id();
            $t->foreignId('production_id')->constrained()->cascadeOnDelete();
            $t->foreignId('user_id')->constrained()->cascadeOnDelete();
            $t->enum('role', ['owner', 'editor', 'viewer']);
            $t->timestamps();
            $t->unique(['production_id', 'user_id']);
        });
        Schema::create('assets', function (Blueprint $t): void {
            $t->id();
            // Null: the house kit, which everyone may use.
            $t->foreignId('production_id')->nullable()->constrained()->cascadeOnDelete();
            $t->enum('kind', ['performer', 'set', 'prop', 'motion']);
            $t->string('slug', 120);
            $t->string('name', 120);
            $t->json('tags');
            $t->string('credit', 200);
            $t->string('licence', 40);
            $t->timestamps();
            $t->unique(['production_id', 'slug']);
        });
        Schema::create('asset_versions', function (Blueprint $t): void {
            $t->id();
            $t->foreignId('asset_id')->constrained()->cascadeOnDelete();
            $t->unsignedInteger('number');
            $t->char('blob', 64);
            $t->char('digest', 64);
            $t->char('picture', 64)->nullable();
            $t->json('facts');
            $t->json('findings');
            $t->timestamps();
            $t->unique(['asset_id', 'number']);
        });
        Schema::create('scenes', function (Blueprint $t): void {
            $t->id();
            $t->foreignId('production_id')->constrained()->cascadeOnDelete();
            $t->string('name', 120);
            $t->string('mood', 20)->default('dusk');
            $t->unsignedBigInteger('revision')->default(0);
            $t->timestamps();
            $t->unique(['production_id', 'name']);
        });
        $this->parts();
        $this->journal();
    }

    private function parts(): void
    {
        Schema::create('items', function (Blueprint $t): void {
            $t->id();
            $t->foreignId('scene_id')->constrained()->cascadeOnDelete();
            $t->enum('kind', ['performer', 'set', 'prop']);
            $t->foreignId('asset_id')->constrained()->restrictOnDelete();
            $t->foreignId('pinned_version_id')->nullable()->constrained('asset_versions')->restrictOnDelete();
            $t->string('name', 80);
            $t->unsignedTinyInteger('tape')->default(0);
            $t->double('x');
            $t->double('y');
            $t->double('z');
            $t->double('heading_deg')->default(0);
            $t->double('scale')->default(1);
            $t->unique(['scene_id', 'name']);
        });
        Schema::create('beats', function (Blueprint $t): void {
            $t->id();
            $t->foreignId('scene_id')->constrained()->cascadeOnDelete();
            $t->foreignId('item_id')->constrained()->cascadeOnDelete();
            $t->foreignId('asset_id')->constrained()->restrictOnDelete();
            $t->unsignedInteger('start');
            $t->double('source_in')->default(0);
            $t->double('source_out')->nullable();
            $t->double('speed')->default(1);
            $t->unsignedInteger('loops')->default(1);
            $t->enum('root', ['travel', 'spot'])->default('travel');
            $t->enum('join_kind', ['carryOn', 'blend', 'cut'])->default('carryOn');
            $t->unsignedSmallInteger('join_frames')->default(8);
            $t->json('settings');
        });
        Schema::create('links', function (Blueprint $t): void {
            $t->id();
            $t->foreignId('scene_id')->constrained()->cascadeOnDelete();
            $t->foreignId('child_id')->constrained('items')->cascadeOnDelete();
            $t->foreignId('parent_id')->constrained('items')->cascadeOnDelete();
            $t->string('mount', 80)->default('');
            $t->unsignedInteger('from_frame');
            $t->unsignedInteger('to_frame')->nullable();
            $t->enum('keep', ['place', 'grip'])->default('place');
            $t->unsignedSmallInteger('ease_frames')->default(0);
        });
        Schema::create('cameras', function (Blueprint $t): void {
            $t->id();
            $t->foreignId('scene_id')->constrained()->cascadeOnDelete();
            $t->string('letter', 3);
            $t->string('name', 80)->default('');
            $t->double('sensor_width_mm')->default(36);
            $t->double('sensor_height_mm')->default(24);
            $t->json('keys');
            $t->unique(['scene_id', 'letter']);
        });
        Schema::create('shots', function (Blueprint $t): void {
            $t->id();
            $t->foreignId('scene_id')->constrained()->cascadeOnDelete();
            $t->foreignId('camera_id')->constrained()->restrictOnDelete();
            $t->unsignedInteger('sort');
            $t->unsignedInteger('in_frame');
            // Null: the last shot runs to the end of the scene.
            $t->unsignedInteger('out_frame')->nullable();
            $t->string('label', 20)->nullable();
            $t->index(['scene_id', 'sort']);
        });
    }

    private function journal(): void
    {
        Schema::create('edits', function (Blueprint $t): void {
            $t->id();
            $t->foreignId('scene_id')->constrained()->cascadeOnDelete();
            $t->foreignId('user_id')->nullable()->constrained()->nullOnDelete();
            $t->unsignedBigInteger('revision');
            $t->enum('kind', ['do', 'undo', 'redo']);
            $t->foreignId('reverts_id')->nullable()->constrained('edits')->cascadeOnDelete();
            $t->boolean('undone')->default(false);
            $t->string('label', 160);
            $t->json('commands');
            $t->longText('row_changes');
            $t->timestamp('made_at')->useCurrent();
            $t->unique(['scene_id', 'revision']);
            $t->index(['scene_id', 'user_id', 'id']);
        });
        Schema::create('render_jobs', function (Blueprint $t): void {
            $t->uuid('id')->primary();
            // Null: pictures of kit assets, which belong to no scene.
            $t->foreignId('scene_id')->nullable()->constrained()->cascadeOnDelete();
            $t->foreignId('user_id')->nullable()->constrained()->nullOnDelete();
            $t->char('document', 64);
            $t->unsignedInteger('from_frame');
            $t->unsignedInteger('to_frame');
            $t->unsignedSmallInteger('width');
            $t->unsignedSmallInteger('height');
            $t->enum('format', ['mp4', 'png']);
            $t->enum('quality', ['draft', 'final'])->default('final');
            $t->enum('status', ['waiting', 'drawing', 'encoding', 'done', 'cancelled', 'failed'])->default('waiting');
            $t->char('token_hash', 64);
            $t->text('token');
            $t->string('file_name', 160);
            $t->text('error')->nullable();
            $t->double('ms_per_frame')->nullable();
            $t->timestamp('started_at')->nullable();
            $t->timestamp('finished_at')->nullable();
            $t->timestamps();
        });
        Schema::create('render_chunks', function (Blueprint $t): void {
            $t->id();
            $t->foreignUuid('render_job_id')->constrained()->cascadeOnDelete();
            $t->unsignedInteger('from_frame');
            $t->unsignedInteger('to_frame');
            $t->enum('status', ['waiting', 'drawing', 'done'])->default('waiting');
            $t->unsignedInteger('attempts')->default(0);
            $t->unique(['render_job_id', 'from_frame']);
        });
    }

    public function down(): void
    {
        foreach ([
            'render_chunks', 'render_jobs', 'edits', 'shots', 'cameras', 'links', 'beats', 'items', 'scenes', 'asset_versions', 'assets',
            'members', 'productions',
        ] as $table) {
            Schema::dropIfExists($table);
        }
    }
};
