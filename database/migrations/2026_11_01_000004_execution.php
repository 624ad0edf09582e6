<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

return new class extends Migration {
    public function up(): void
    {
        Schema::create('attempts', function (Blueprint $table): void {
            $table->uuid('id')->primary();
            $table->foreignUuid('project_id')->constrained()->cascadeOnDelete();
            $table->foreignUuid('entry_id')->constrained()->cascadeOnDelete();
            $table->integer('number');
            $table->foreignUuid('tester_id')->constrained('users');
            $table->foreignUuid('build_id')->nullable()->constrained();
            $table->foreignUuid('configuration_id')->nullable()->constrained();
            $table->string('state', 12)->default('open');
            $table->jsonb('snapshot');
            $table->boolean('has_verdict')->default(false);
            $table->string('roll_up', 16)->default('not_run');
            $table->string('verdict', 16)->nullable();
            $table->boolean('overruled')->default(false);
            $table->text('note')->default('');
            $table->bigInteger('active_ms')->default(0);
            $table->bigInteger('corrected_ms')->nullable();
            $table->text('held_word')->nullable();
            $table->timestampTz('started_at', 6);
            $table->timestampTz('finished_at', 6)->nullable();
            $table->timestampTz('taken_over_at', 6)->nullable();
            $table->integer('sequence')->default(0);
            $table->string('head', 64);
            $table->integer('sealed_sequence')->nullable();
            $table->string('sealed_head', 64)->nullable();
            $table->unique(['entry_id', 'number']);
            $table->index(['tester_id', 'state']);
        });
        DB::statement("alter table attempts add constraint attempts_state_check check (state in ('open', 'finished', 'abandoned'))");
        DB::statement(
            "alter table attempts add constraint attempts_verdict_check check ((state = 'finished') = (verdict is " .
                "not null) and (verdict is null or verdict in ('pass', 'fail', 'blocked', 'not_applicable')))",
        );
        DB::statement("create unique index attempts_one_open on attempts (entry_id) where state = 'open'");
        DB::statement(
            'alter table entries add constraint entries_open_attempt_foreign foreign key (open_attempt_id) ' .
                'references attempts(id) deferrable initially deferred',
        );
        DB::statement(
            'alter table entries add constraint entries_last_attempt_foreign foreign key (last_attempt_id) ' .
                'references attempts(id) deferrable initially deferred',
        );

        Schema::create('rounds', function (Blueprint $table): void {
            $table->uuid('id')->primary();
            $table->foreignUuid('attempt_id')->constrained()->cascadeOnDelete();
            $table->integer('position');
            $table->jsonb('data_row')->default('{}');
            $table->string('roll_up', 16)->default('not_run');
            $table->unique(['attempt_id', 'position']);
        });

        Schema::create('step_results', function (Blueprint $table): void {
            $table->uuid('id')->primary();
            $table->foreignUuid('round_id')->constrained()->cascadeOnDelete();
            $table->integer('position');
            $table->string('verdict', 16)->default('not_run');
            $table->text('note')->default('');
            $table->text('happened')->default('');
            $table->text('reason')->default('');
            $table->text('waits_on')->default('');
            $table->bigInteger('active_ms')->default(0);
            $table->timestampTz('judged_at', 6)->nullable();
            $table->unique(['round_id', 'position']);
        });
        DB::statement(
            "alter table step_results add constraint step_results_verdict_check check (verdict in ('pass', 'fail', " .
                "'blocked', 'not_applicable', 'not_run'))",
        );

        Schema::create('events', function (Blueprint $table): void {
            $table->foreignUuid('attempt_id')->constrained();
            $table->integer('sequence');
            $table->string('kind', 32);
            $table->foreignUuid('actor_id')->constrained('users');
            $table->bigInteger('device_time')->nullable();
            $table->bigInteger('server_time');
            $table->bigInteger('counter')->nullable();
            $table->jsonb('payload');
            $table->jsonb('evidence')->default('[]');
            $table->text('bytes');
            $table->string('hash', 64);
            $table->primary(['attempt_id', 'sequence']);
        });
        // The function stays behind when tables are dropped, hence "or replace".
        DB::unprepared(
            <<<'SQL'
            create or replace function lucid_append_only() returns trigger language plpgsql as $$
            begin
                raise exception 'events are append-only';
            end $$;
            create trigger events_append_only before update or delete on events for each row execute function lucid_append_only();
            SQL
            ,
        );

        Schema::create('late_acts', function (Blueprint $table): void {
            $table->uuid('id')->primary();
            $table->foreignUuid('project_id')->constrained()->cascadeOnDelete();
            $table->foreignUuid('attempt_id')->constrained();
            $table->foreignUuid('actor_id')->constrained('users');
            $table->string('kind', 32);
            $table->jsonb('payload');
            $table->text('why');
            $table->timestampTz('device_time', 6)->nullable();
            $table->timestampTz('received_at', 6);
            $table->index(['attempt_id', 'received_at']);
        });

        Schema::create('files', function (Blueprint $table): void {
            $table->string('sha256', 64)->primary();
            $table->bigInteger('bytes');
            $table->string('media_type', 60);
            $table->integer('width')->nullable();
            $table->integer('height')->nullable();
            $table->string('thumbnail', 12)->default('none');
            $table->timestampTz('created_at', 6);
        });
        DB::statement("alter table files add constraint files_thumbnail_check check (thumbnail in ('none', 'waiting', 'ready', 'failed'))");

        Schema::create('evidence', function (Blueprint $table): void {
            $table->uuid('id')->primary();
            $table->foreignUuid('project_id')->constrained()->cascadeOnDelete();
            $table->foreignUuid('attempt_id')->constrained()->cascadeOnDelete();
            $table->integer('round')->nullable();
            $table->integer('step')->nullable();
            $table->string('sha256', 64);
            $table->foreign('sha256')->references('sha256')->on('files');
            $table->text('name');
            $table->text('caption')->default('');
            $table->string('source', 12)->default('file');
            $table->foreignUuid('added_by_id')->constrained('users');
            $table->timestampTz('device_time', 6)->nullable();
            $table->timestampTz('created_at', 6);
            $table->timestampTz('removed_at', 6)->nullable();
            $table->index(['attempt_id', 'created_at']);
        });
    }
};
