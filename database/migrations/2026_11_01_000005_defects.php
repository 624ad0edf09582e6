<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

return new class extends Migration {
    public function up(): void
    {
        Schema::create('defects', function (Blueprint $table): void {
            $table->uuid('id')->primary();
            $table->foreignUuid('project_id')->constrained()->cascadeOnDelete();
            $table->integer('number');
            $table->string('key', 24)->unique();
            $table->text('title');
            $table->text('body')->default('');
            $table->text('expected')->default('');
            $table->text('actual')->default('');
            $table->string('state', 20)->default('new');
            $table->string('severity', 10)->default('major');
            $table->foreignUuid('reporter_id')->constrained('users');
            $table->foreignUuid('assignee_id')->nullable()->constrained('users');
            $table->foreignUuid('case_id')->nullable()->constrained('cases');
            $table->foreignUuid('build_id')->nullable()->constrained();
            $table->foreignUuid('fixed_build_id')->nullable()->constrained('builds');
            $table->integer('version')->default(1);
            $table->timestampsTz(6);
            $table->unique(['project_id', 'number']);
            $table->index(['project_id', 'state', 'number']);
        });
        DB::statement(
            "alter table defects add constraint defects_state_check check (state in ('new', 'needs_information', " .
                "'accepted', 'in_work', 'fixed', 'verified', 'reopened', 'closed', 'rejected', 'duplicate'))",
        );
        DB::statement(
            "alter table defects add constraint defects_severity_check check (severity in ('critical', 'major', 'minor', 'trivial'))",
        );
        DB::statement('create index defects_title_trgm on defects using gin (title gin_trgm_ops)');

        Schema::create('defect_links', function (Blueprint $table): void {
            $table->uuid('id')->primary();
            $table->foreignUuid('defect_id')->constrained()->cascadeOnDelete();
            $table->foreignUuid('entry_id')->constrained()->cascadeOnDelete();
            $table->foreignUuid('attempt_id')->constrained()->cascadeOnDelete();
            $table->integer('round')->nullable();
            $table->integer('step')->nullable();
            $table->foreignUuid('linked_by_id')->constrained('users');
            $table->timestampTz('created_at', 6);
            $table->index('defect_id');
            $table->index(['attempt_id', 'step']);
            $table->index('entry_id');
        });
        DB::statement(
            'create unique index defect_links_once on defect_links (defect_id, attempt_id, coalesce(round, -1), coalesce(step, -1))',
        );

        Schema::create('defect_changes', function (Blueprint $table): void {
            $table->uuid('id')->primary();
            $table->foreignUuid('defect_id')->constrained()->cascadeOnDelete();
            $table->foreignUuid('actor_id')->constrained('users');
            $table->string('from_state', 20)->nullable();
            $table->string('to_state', 20);
            $table->text('note')->default('');
            $table->timestampTz('created_at', 6);
            $table->index(['defect_id', 'created_at']);
        });
    }
};
