<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

return new class extends Migration {
    public function up(): void
    {
        // The project's calendar, and each person's.
        Schema::table('projects', function (Blueprint $table): void {
            $table->jsonb('working_days')->default('[1,2,3,4,5]');
            $table->jsonb('holidays')->default('[]');
        });
        Schema::table('memberships', function (Blueprint $table): void {
            $table->integer('minutes_per_day')->default(360);
            $table->jsonb('days_off')->default('[]');
        });
        DB::statement('alter table memberships add constraint memberships_minutes_check check (minutes_per_day between 0 and 1440)');
        DB::statement('alter table list_items drop constraint list_items_list_check');
        DB::statement(
            "alter table list_items add constraint list_items_list_check check (list in ('type', 'priority', 'milestone', 'phase'))",
        );

        // What is tested on what.
        Schema::create('releases', function (Blueprint $table): void {
            $table->uuid('id')->primary();
            $table->foreignUuid('project_id')->constrained()->cascadeOnDelete();
            $table->text('name');
            $table->integer('position');
            $table->unique(['project_id', 'name']);
        });
        Schema::table('builds', function (Blueprint $table): void {
            $table->foreignUuid('release_id')->nullable()->constrained();
        });
        Schema::create('axes', function (Blueprint $table): void {
            $table->uuid('id')->primary();
            $table->foreignUuid('project_id')->constrained()->cascadeOnDelete();
            $table->text('name');
            $table->integer('position');
        });
        DB::statement('create unique index axes_name on axes (project_id, lower(name))');
        Schema::create('axis_values', function (Blueprint $table): void {
            $table->uuid('id')->primary();
            $table->foreignUuid('axis_id')->constrained()->cascadeOnDelete();
            $table->text('name');
            $table->integer('position');
        });
        DB::statement('create unique index axis_values_name on axis_values (axis_id, lower(name))');
        Schema::create('forbidden_pairs', function (Blueprint $table): void {
            $table->foreignUuid('value_id')->constrained('axis_values')->cascadeOnDelete();
            $table->foreignUuid('other_id')->constrained('axis_values')->cascadeOnDelete();
            $table->primary(['value_id', 'other_id']);
        });
        Schema::create('configuration_values', function (Blueprint $table): void {
            $table->foreignUuid('configuration_id')->constrained()->cascadeOnDelete();
            $table->foreignUuid('value_id')->constrained('axis_values');
            $table->primary(['configuration_id', 'value_id']);
            $table->index('value_id');
        });

        Schema::create('milestones', function (Blueprint $table): void {
            $table->uuid('id')->primary();
            $table->foreignUuid('project_id')->constrained()->cascadeOnDelete();
            $table->text('name');
            $table->string('type', 60)->default('');
            $table->text('description')->default('');
            $table->date('due_on');
            $table->timestampsTz(6);
            $table->index(['project_id', 'due_on', 'id']);
        });
        DB::statement('create unique index milestones_name on milestones (project_id, lower(name))');

        Schema::table('cycles', function (Blueprint $table): void {
            $table->foreignUuid('milestone_id')->nullable()->constrained();
            $table->string('phase', 60)->default('');
            $table->text('folder')->default('');
            $table->string('priority', 60)->default('');
            $table->foreignUuid('default_assignee_id')->nullable()->constrained('users');
            $table->foreignUuid('cloned_from_id')->nullable()->constrained('cycles')->nullOnDelete();
            // Counts every change of the plan: whoever saves says which one they saw.
            $table->integer('revision')->default(1);
            $table->index('milestone_id');
        });
        Schema::create('cycle_people', function (Blueprint $table): void {
            $table->foreignUuid('cycle_id')->constrained()->cascadeOnDelete();
            $table->foreignUuid('user_id')->constrained();
            $table->string('part', 8);
            $table->integer('position');
            $table->primary(['cycle_id', 'user_id', 'part']);
            $table->index('user_id');
        });
        DB::statement("alter table cycle_people add constraint cycle_people_part_check check (part in ('tester', 'watcher'))");
        Schema::create('cycle_log', function (Blueprint $table): void {
            $table->bigIncrements('id');
            $table->foreignUuid('cycle_id')->constrained()->cascadeOnDelete();
            $table->foreignUuid('actor_id')->nullable()->constrained('users');
            $table->timestampTz('at', 6);
            $table->text('text');
            $table->text('reason')->default('');
            $table->uuid('act_id')->nullable();
            $table->index(['cycle_id', 'id']);
        });
        Schema::create('sign_offs', function (Blueprint $table): void {
            $table->uuid('id')->primary();
            $table->foreignUuid('cycle_id')->constrained()->cascadeOnDelete();
            $table->foreignUuid('user_id')->constrained();
            $table->timestampTz('at', 6);
            $table->text('note')->default('');
            $table->jsonb('counts');
            $table->jsonb('unwalked');
            $table->index('cycle_id');
        });

        // An act on many entries, undone as one: what each was before and after.
        Schema::create('plan_acts', function (Blueprint $table): void {
            $table->uuid('id')->primary();
            $table->foreignUuid('project_id')->constrained()->cascadeOnDelete();
            // None for an act on several cycles.
            $table->foreignUuid('cycle_id')->nullable()->constrained()->cascadeOnDelete();
            $table->foreignUuid('actor_id')->constrained('users');
            $table->text('title');
            $table->jsonb('before');
            $table->jsonb('after');
            $table->timestampTz('created_at', 6);
            $table->timestampTz('undone_at', 6)->nullable();
            $table->index(['cycle_id', 'created_at']);
        });
        Schema::create('entry_additions', function (Blueprint $table): void {
            $table->uuid('id')->primary();
            $table->foreignUuid('project_id')->constrained()->cascadeOnDelete();
            $table->foreignUuid('cycle_id')->constrained()->cascadeOnDelete();
            $table->foreignUuid('actor_id')->constrained('users');
            $table->string('state', 12);
            $table->jsonb('picks');
            $table->integer('done')->default(0);
            $table->integer('total')->default(0);
            $table->text('problem')->default('');
            $table->jsonb('facts')->default('{}');
            $table->timestampTz('created_at', 6);
        });
        DB::statement(
            "alter table entry_additions add constraint entry_additions_state_check check (state in ('running', " .
                "'stopping', 'done', 'cancelled', 'failed'))",
        );

        Schema::table('entries', function (Blueprint $table): void {
            $table->integer('rounds')->default(1);
            $table->text('handover_note')->default('');
            $table->foreignUuid('handover_by_id')->nullable()->constrained('users');
            $table->timestampTz('look_asked_at', 6)->nullable();
            $table->foreignUuid('look_by_id')->nullable()->constrained('users');
            $table->text('look_note')->default('');
            $table->foreignUuid('addition_id')->nullable()->constrained('entry_additions')->nullOnDelete();
        });
        // Places are changed all at once when entries are moved.
        DB::statement('alter table entries drop constraint entries_cycle_id_position_unique');
        DB::statement(
            'alter table entries add constraint entries_cycle_id_position_unique unique (cycle_id, position) deferrable initially deferred',
        );
        DB::statement('create index entries_looked_for on entries (project_id) where look_asked_at is not null');
        DB::statement('create index entries_by_cycle_state on entries (cycle_id, shows)');
        // What stops an entry since something it needs the pass of failed or is blocked.
        Schema::create('entry_stops', function (Blueprint $table): void {
            $table->foreignUuid('entry_id')->constrained()->cascadeOnDelete();
            $table->foreignUuid('cause_id')->constrained('entries')->cascadeOnDelete();
            $table->foreignUuid('actor_id')->constrained('users');
            $table->timestampTz('at', 6);
            $table->primary(['entry_id', 'cause_id']);
            $table->index('cause_id');
        });

        // What a case usually waits for, offered when entries are made of it.
        Schema::create('case_conditions', function (Blueprint $table): void {
            $table->foreignUuid('case_id')->constrained('cases')->cascadeOnDelete();
            $table->foreignUuid('needs_id')->constrained('cases')->cascadeOnDelete();
            $table->string('kind', 16);
            $table->primary(['case_id', 'needs_id']);
            $table->index('needs_id');
        });
        DB::statement(
            "alter table case_conditions add constraint case_conditions_kind_check check (kind in ('after', " .
                "'only_if_passed') and case_id <> needs_id)",
        );
        // Seconds per round of the newest ten walks that count, newest first: estimates need no history.
        Schema::table('cases', function (Blueprint $table): void {
            $table->jsonb('walk_times')->default('[]');
        });
        DB::statement("create index cases_walked_times on cases (project_id) where walk_times <> '[]'");
        DB::statement('alter table attempts add column time_seen_at timestamptz(6)');
        DB::statement('create index attempts_corrected on attempts (project_id) where corrected_ms is not null and time_seen_at is null');
        DB::statement("alter table late_acts add column state varchar(10) not null default 'waiting'");
        DB::statement('alter table late_acts add column judged_by_id uuid references users');
        DB::statement('create index late_acts_waiting on late_acts (project_id) where state = \'waiting\'');

        Schema::create('notices', function (Blueprint $table): void {
            $table->uuid('id')->primary();
            $table->foreignUuid('user_id')->constrained()->cascadeOnDelete();
            $table->foreignUuid('project_id')->constrained()->cascadeOnDelete();
            $table->text('text');
            $table->text('link');
            $table->timestampTz('created_at', 6);
            $table->timestampTz('read_at', 6)->nullable();
            $table->index(['user_id', 'created_at']);
        });
        Schema::create('caught_mails', function (Blueprint $table): void {
            $table->bigIncrements('id');
            $table->text('to');
            $table->text('subject');
            $table->text('text');
            $table->timestampTz('at', 6);
        });
    }
};
