<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

return new class extends Migration {
    public function up(): void
    {
        Schema::create('builds', function (Blueprint $table): void {
            $table->uuid('id')->primary();
            $table->foreignUuid('project_id')->constrained()->cascadeOnDelete();
            $table->text('name');
            $table->integer('position');
            $table->unique(['project_id', 'name']);
        });

        Schema::create('configurations', function (Blueprint $table): void {
            $table->uuid('id')->primary();
            $table->foreignUuid('project_id')->constrained()->cascadeOnDelete();
            $table->text('name');
            $table->integer('position');
            $table->unique(['project_id', 'name']);
        });

        Schema::create('cycles', function (Blueprint $table): void {
            $table->uuid('id')->primary();
            $table->foreignUuid('project_id')->constrained()->cascadeOnDelete();
            $table->integer('number');
            $table->string('key', 24)->unique();
            $table->text('name');
            $table->text('description')->default('');
            $table->foreignUuid('build_id')->nullable()->constrained();
            $table->date('starts_on');
            $table->date('ends_on');
            $table->string('state', 16)->default('draft');
            $table->boolean('conditions_hold')->default(true);
            $table->timestampTz('closed_at', 6)->nullable();
            $table->timestampsTz(6);
            $table->unique(['project_id', 'number']);
            $table->index(['project_id', 'ends_on', 'id']);
        });
        DB::statement(
            "alter table cycles add constraint cycles_state_check check (state in ('draft', 'in_review', 'released', " .
                "'closed', 'abandoned'))",
        );
        DB::statement('alter table cycles add constraint cycles_dates_check check (starts_on <= ends_on)');

        Schema::create('entries', function (Blueprint $table): void {
            $table->uuid('id')->primary();
            $table->foreignUuid('project_id')->constrained()->cascadeOnDelete();
            $table->foreignUuid('cycle_id')->constrained()->cascadeOnDelete();
            $table->foreignUuid('case_id')->constrained('cases');
            $table->foreignUuid('case_version_id')->constrained('case_versions');
            $table->foreignUuid('configuration_id')->nullable()->constrained();
            $table->integer('position');
            $table->foreignUuid('assignee_id')->nullable()->constrained('users');
            $table->timestampTz('not_before', 6)->nullable();
            $table->timestampTz('not_after', 6)->nullable();
            // What the entry shows, kept in the transaction of each event so that no board adds up history.
            $table->string('shows', 16)->default('not_run');
            $table->string('was', 16)->nullable();
            $table->uuid('open_attempt_id')->nullable();
            $table->uuid('last_attempt_id')->nullable();
            $table->integer('attempts_count')->default(0);
            $table->integer('defects_count')->default(0);
            $table->bigInteger('active_ms')->default(0);
            $table->timestampTz('retest_asked_at', 6)->nullable();
            $table->foreignUuid('retest_by_id')->nullable()->constrained('users');
            $table->text('retest_reason')->nullable();
            $table->timestampTz('shown_at', 6)->nullable();
            $table->timestampsTz(6);
            $table->unique(['cycle_id', 'position']);
            $table->index(['assignee_id', 'cycle_id']);
            $table->index('case_id');
        });
        DB::statement(
            "alter table entries add constraint entries_shows_check check (shows in ('pass', 'fail', 'blocked', " .
                "'not_applicable', 'not_run', 'in_progress', 'retest'))",
        );
        DB::statement(
            'alter table entries add constraint entries_window_check check (not_before is null or not_after is null ' .
                'or not_before < not_after)',
        );

        Schema::create('entry_conditions', function (Blueprint $table): void {
            $table->foreignUuid('entry_id')->constrained()->cascadeOnDelete();
            $table->foreignUuid('needs_id')->constrained('entries')->cascadeOnDelete();
            $table->string('kind', 16);
            $table->primary(['entry_id', 'needs_id']);
            $table->index('needs_id');
        });
        DB::statement(
            "alter table entry_conditions add constraint entry_conditions_kind_check check (kind in ('after', " .
                "'only_if_passed') and entry_id <> needs_id)",
        );
    }
};
