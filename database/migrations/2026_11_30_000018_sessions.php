<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

return new class extends Migration {
    public function up(): void
    {
        Schema::create('charters', static function (Blueprint $table): void {
            $table->uuid('id')->primary();
            $table->foreignUuid('project_id')->constrained()->cascadeOnDelete();
            $table->integer('number');
            $table->string('key', 20)->unique();
            $table->text('title');
            $table->text('with_what')->default('');
            $table->text('to_find')->default('');
            // What it explores of the project: a folder, a requirement, or a label by its name.
            $table->foreignUuid('folder_id')->nullable()->constrained()->nullOnDelete();
            $table->foreignUuid('requirement_id')->nullable()->constrained()->nullOnDelete();
            $table->text('label')->default('');
            $table->text('risk')->default('');
            $table->string('priority', 10)->default('medium');
            $table->integer('box_minutes')->default(60);
            $table->foreignUuid('build_id')->nullable()->constrained()->nullOnDelete();
            $table->foreignUuid('configuration_id')->nullable()->constrained()->nullOnDelete();
            $table->foreignUuid('milestone_id')->nullable()->constrained()->nullOnDelete();
            $table->foreignUuid('assignee_id')->nullable()->constrained('users');
            $table->date('not_before')->nullable();
            // Nobody is to run it any more.
            $table->timestampTz('dropped_at', 6)->nullable();
            $table->foreignUuid('author_id')->constrained('users');
            $table->integer('version')->default(1);
            $table->timestampsTz(6);
            $table->unique(['project_id', 'number']);
            $table->index(['project_id', 'assignee_id']);
        });
        Schema::create('test_sessions', static function (Blueprint $table): void {
            $table->uuid('id')->primary();
            $table->foreignUuid('project_id')->constrained()->cascadeOnDelete();
            $table->foreignUuid('charter_id')->constrained()->cascadeOnDelete();
            // 1, 2, 3 … of its charter.
            $table->integer('number');
            $table->foreignUuid('tester_id')->constrained('users');
            $table->foreignUuid('build_id')->nullable()->constrained();
            $table->foreignUuid('configuration_id')->nullable()->constrained();
            $table->text('environment')->default('');
            $table->string('state', 10)->default('running');
            $table->bigInteger('box_ms');
            // When it ran, as pairs of ms since 1970, and what was switched when.
            $table->jsonb('runs')->default('[]');
            $table->jsonb('switches')->default('[]');
            // Time that was moved from one share to another.
            $table->jsonb('time_moves')->default('[]');
            $table->timestampTz('started_at', 6);
            $table->timestampTz('stopped_at', 6)->nullable();
            $table->text('covered')->default('');
            $table->text('remarks')->default('');
            $table->foreignUuid('signed_by_id')->nullable()->constrained('users');
            $table->timestampTz('signed_at', 6)->nullable();
            $table->text('sign_note')->default('');
            // Its record: as many events, the hash of the last, and where it was sealed.
            $table->integer('sequence')->default(0);
            $table->char('head', 64);
            $table->integer('sealed_sequence')->nullable();
            $table->char('sealed_head', 64)->nullable();
            $table->text('seal_signature')->nullable();
            $table->timestampsTz(6);
            $table->unique(['charter_id', 'number']);
            $table->index(['project_id', 'started_at']);
        });
        Schema::create('session_lines', static function (Blueprint $table): void {
            $table->uuid('id')->primary();
            $table->foreignUuid('project_id')->constrained()->cascadeOnDelete();
            $table->foreignUuid('session_id')->constrained('test_sessions')->cascadeOnDelete();
            // In order of arrival.
            $table->integer('number');
            $table->string('kind', 10);
            // On the clock of the session, and by that of the device.
            $table->bigInteger('at_ms');
            $table->timestampTz('done_at', 6);
            $table->bigInteger('counter')->nullable();
            $table->text('words')->default('');
            // What it said before, the first first.
            $table->jsonb('former')->default('[]');
            $table->boolean('pinned')->default(false);
            $table->char('sha256', 64)->nullable();
            $table->foreign('sha256')->references('sha256')->on('files');
            $table->text('name')->default('');
            $table->text('page')->nullable();
            $table->string('tab', 64)->nullable();
            $table->string('reached', 20)->nullable();
            $table->string('opener', 64)->nullable();
            $table->text('control')->default('');
            $table->text('value')->nullable();
            $table->foreignUuid('removed_by_id')->nullable()->constrained('users');
            $table->timestampTz('removed_at', 6)->nullable();
            $table->text('removed_reason')->default('');
            $table->timestampTz('created_at', 6);
            $table->unique(['session_id', 'number']);
            $table->index('sha256');
        });
        Schema::create('session_events', static function (Blueprint $table): void {
            $table->foreignUuid('session_id')->constrained('test_sessions');
            $table->integer('sequence');
            $table->string('kind', 40);
            $table->foreignUuid('actor_id')->nullable()->constrained('users');
            $table->bigInteger('device_time')->nullable();
            $table->bigInteger('server_time');
            $table->bigInteger('counter')->nullable();
            $table->text('payload');
            $table->text('evidence')->default('[]');
            $table->jsonb('salts')->default('{}');
            $table->text('bytes');
            $table->char('hash', 64);
            $table->primary(['session_id', 'sequence']);
        });
        DB::unprepared(
            <<<'SQL'
            alter table test_sessions add constraint test_sessions_state check (state in ('running', 'paused', 'stopped', 'debriefed'));
            -- One runs at a time for each person.
            create unique index test_sessions_running on test_sessions (tester_id) where state = 'running';
            create index session_lines_in_time on session_lines (session_id, done_at, counter, number);
            create trigger session_events_append_only before update or delete on session_events for each row
                execute function lucid_append_only();
            SQL
            ,
        );
        DB::unprepared(
            <<<'SQL'
            alter table removals alter column kind type varchar(20);
            alter table removals drop constraint removals_kind_check;
            alter table removals add constraint removals_kind_check check (kind in
                ('file', 'text', 'message', 'entry', 'cycle_event', 'session_event', 'cycle_log', 'setup_log'));
            SQL
            ,
        );
        $guard = DB::selectOne("select pg_get_functiondef('lucid_append_only()'::regprocedure) as text");
        DB::unprepared(
            str_replace(
                "    if tg_op = 'UPDATE' and tg_table_name = 'cycle_log' then",
                <<<'SQL'
                    if tg_op = 'UPDATE' and tg_table_name = 'session_events' then
                        if (to_jsonb(new) - 'payload' - 'salts') = (to_jsonb(old) - 'payload' - 'salts')
                            and new.salts <@ old.salts and new.salts <> old.salts
                            and exists (select 1 from removals r where r.kind = 'session_event'
                                and r.subject = new.session_id || '/' || new.sequence) then
                            return new;
                        end if;
                    end if;
                    if tg_op = 'UPDATE' and tg_table_name = 'cycle_log' then
                SQL
                ,
                (string) $guard->text,
            ),
        );
        $delete = DB::selectOne("select pg_get_functiondef('lucid_delete_project(uuid)'::regprocedure) as text");
        DB::unprepared(
            str_replace(
                'delete from removals r',
                "delete from session_events where session_id in (select id from test_sessions s where s.project_id = project);\n" .
                    '                delete from removals r',
                (string) $delete->text,
            ),
        );
    }

    public function down(): void
    {
        $delete = DB::selectOne("select pg_get_functiondef('lucid_delete_project(uuid)'::regprocedure) as text");
        DB::unprepared((string) preg_replace('/delete from session_events[^;]*;\s*/', '', (string) $delete->text));
        Schema::dropIfExists('session_events');
        Schema::dropIfExists('session_lines');
        Schema::dropIfExists('test_sessions');
        Schema::dropIfExists('charters');
    }
};
