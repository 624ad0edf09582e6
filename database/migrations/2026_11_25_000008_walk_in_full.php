<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

return new class extends Migration {
    public function up(): void
    {
        // What was walked on, and what became of a walk that two people began without knowing of each other.
        Schema::table('attempts', function (Blueprint $table): void {
            $table->text('environment')->default('');
            $table->text('remark')->default('');
            $table->boolean('from_list')->default(false);
            $table->text('beside')->nullable();
            $table->text('takeover_word')->default('');
            $table->foreignUuid('late_of_id')->nullable()->constrained('attempts');
        });
        DB::statement('drop index attempts_one_open');
        DB::statement("create unique index attempts_one_open on attempts (entry_id) where state = 'open' and beside is null");
        Schema::table('rounds', function (Blueprint $table): void {
            $table->text('skipped')->nullable();
            $table->integer('repeats')->nullable();
        });
        Schema::table('step_results', function (Blueprint $table): void {
            $table->integer('tries')->default(0);
            $table->integer('tries_failed')->default(0);
        });
        Schema::table('late_acts', function (Blueprint $table): void {
            $table->bigInteger('counter')->nullable();
            $table->foreignUuid('applied_to_id')->nullable()->constrained('attempts');
        });

        // What changed since somebody looked last.
        Schema::table('entries', function (Blueprint $table): void {
            $table->timestampTz('assigned_at', 6)->nullable();
        });
        DB::unprepared(
            <<<'SQL'
            create or replace function lucid_assigned() returns trigger language plpgsql as $$
            begin
                if tg_op = 'INSERT' or new.assignee_id is distinct from old.assignee_id then
                    new.assigned_at = case when new.assignee_id is null then null else clock_timestamp() end;
                end if;
                return new;
            end $$;
            create trigger entries_assigned before insert or update of assignee_id on entries for each row
                execute function lucid_assigned();
            SQL
            ,
        );
        Schema::table('memberships', function (Blueprint $table): void {
            $table->timestampTz('today_seen_at', 6)->nullable();
            $table->text('scratch')->default('');
        });

        // Reasons behind verdicts.
        DB::statement('alter table list_items drop constraint list_items_list_check');
        DB::statement(
            "alter table list_items add constraint list_items_list_check check (list in ('type', 'priority', " .
                "'milestone', 'phase', 'reason_pass', 'reason_fail', 'reason_blocked', 'reason_not_applicable'))",
        );

        // Evidence: links, mark-up, and what was taken out with its trace.
        Schema::table('projects', function (Blueprint $table): void {
            $table->integer('retention_days')->nullable();
            $table->integer('storage_limit_mb')->nullable();
        });
        Schema::table('evidence', function (Blueprint $table): void {
            $table->string('sha256', 64)->nullable()->change();
            $table->text('link')->nullable();
            $table->jsonb('markup')->nullable();
            $table->string('marked_sha256', 64)->nullable();
            $table->foreign('marked_sha256')->references('sha256')->on('files');
            $table->text('reference')->nullable();
            $table->jsonb('compared')->nullable();
            $table->index('sha256');
            $table->index('project_id');
        });
        DB::statement('alter table evidence add constraint evidence_something_check check (sha256 is not null or link is not null)');
        Schema::table('project_files', function (Blueprint $table): void {
            $table->jsonb('ignored')->default('[]');
        });
        Schema::create('removals', function (Blueprint $table): void {
            $table->uuid('id')->primary();
            $table->foreignUuid('project_id')->constrained()->cascadeOnDelete();
            $table->foreignUuid('attempt_id')->constrained();
            $table->string('kind', 12);
            // The file's hash, or the number of the event whose text went.
            $table->string('subject', 64);
            $table->text('reason');
            $table->foreignUuid('actor_id')->nullable()->constrained('users');
            $table->timestampTz('at', 6);
            $table->index(['attempt_id', 'kind', 'subject']);
        });
        DB::statement("alter table removals add constraint removals_kind_check check (kind in ('file', 'text'))");

        // The cycle's own chain: what happened to its attempts after they began.
        Schema::table('cycles', function (Blueprint $table): void {
            $table->integer('log_sequence')->default(0);
            $table->string('log_head', 64)->default('');
        });
        Schema::create('cycle_events', function (Blueprint $table): void {
            $table->foreignUuid('cycle_id')->constrained();
            $table->integer('sequence');
            $table->string('kind', 32);
            $table->foreignUuid('actor_id')->nullable()->constrained('users');
            $table->bigInteger('server_time');
            $table->jsonb('payload');
            $table->text('bytes');
            $table->string('hash', 64);
            $table->primary(['cycle_id', 'sequence']);
        });
        // An event keeps its place and its hash for ever. Its text alone may go, and only with a trace of who took it out.
        DB::unprepared(
            <<<'SQL'
            create or replace function lucid_append_only() returns trigger language plpgsql as $$
            begin
                if tg_op = 'UPDATE' and tg_table_name = 'events' then
                    if (new.attempt_id, new.sequence, new.kind, new.actor_id, new.server_time, new.hash) = (old.attempt_id,
                        old.sequence, old.kind, old.actor_id, old.server_time, old.hash)
                        and new.bytes = '' and old.bytes <> ''
                        and exists (select 1 from removals r where r.attempt_id = new.attempt_id and r.kind = 'text'
                            and r.subject = new.sequence::text) then
                        return new;
                    end if;
                end if;
                raise exception 'events are append-only';
            end $$;
            create trigger cycle_events_append_only before update or delete on cycle_events for each row
                execute function lucid_append_only();
            SQL
            ,
        );
    }
};
