<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

return new class extends Migration {
    public function up(): void
    {
        $this->lists();
        $this->reuse();
        $this->cases();
        $this->around();
        $this->exchange();
        $this->fillIn();
    }

    /**
     * What cases written before this have of it. Last of all: a table with changes pending takes no new columns.
     */
    private function fillIn(): void
    {
        DB::statement(
            "update cases set priority_rank = case priority when 'critical' then 1 when 'high' then 2 when 'medium' then 3 else 4 end",
        );
        DB::statement(
            'update cases c set steps_count = (select count(*) from steps s where s.case_version_id = c.version_id), ' .
                "words = left(coalesce((select concat_ws(E'\\n', v.objective, v.preconditions, v.postconditions, (select " .
                "string_agg(concat_ws(E'\\n', s.action, s.data, s.expected), E'\\n' order by s.position) from steps s " .
                "where s.case_version_id = v.id)) from case_versions v where v.id = c.version_id), ''), 100000)",
        );
        DB::statement(
            'update cases c set last_walked_at = (select max(a.finished_at) from attempts a join entries e on e.id = ' .
                'a.entry_id where e.case_id = c.id)',
        );
        DB::statement(
            'insert into labels (project_id, name) select distinct on (project_id, lower(l)) project_id, left(l, 60) ' .
                'from cases, jsonb_array_elements_text(labels) l on conflict do nothing',
        );
    }

    private function lists(): void
    {
        // A list that has no rows is the one that every project begins with.
        Schema::create('list_items', function (Blueprint $table): void {
            $table->uuid('id')->primary();
            $table->foreignUuid('project_id')->constrained()->cascadeOnDelete();
            $table->string('list', 12);
            $table->string('value', 60);
            $table->text('name');
            $table->integer('weight')->default(1);
            $table->integer('position');
            $table->unique(['project_id', 'list', 'value']);
        });
        DB::statement("alter table list_items add constraint list_items_list_check check (list in ('type', 'priority'))");

        Schema::create('labels', function (Blueprint $table): void {
            $table->foreignUuid('project_id')->constrained()->cascadeOnDelete();
            $table->string('name', 60);
            $table->primary(['project_id', 'name']);
        });
        DB::statement('create unique index labels_lower on labels (project_id, lower(name))');

        Schema::create('custom_fields', function (Blueprint $table): void {
            $table->uuid('id')->primary();
            $table->foreignUuid('project_id')->constrained()->cascadeOnDelete();
            $table->string('name', 60);
            $table->string('kind', 12);
            $table->jsonb('choices')->default('[]');
            $table->boolean('required')->default(false);
            $table->integer('position');
        });
        DB::statement(
            "alter table custom_fields add constraint custom_fields_kind_check check (kind in ('text', 'number', " .
                "'date', 'choice', 'yes_no'))",
        );
        DB::statement('create unique index custom_fields_name on custom_fields (project_id, lower(name))');
    }

    private function reuse(): void
    {
        Schema::create('data_tables', function (Blueprint $table): void {
            $table->uuid('id')->primary();
            $table->foreignUuid('project_id')->constrained()->cascadeOnDelete();
            $table->string('name', 120);
            $table->jsonb('columns');
            $table->integer('revision')->default(1);
            $table->timestampTz('binned_at', 6)->nullable();
            $table->timestampsTz(6);
        });
        DB::statement('create unique index data_tables_name on data_tables (project_id, lower(name)) where binned_at is null');

        Schema::create('data_rows', function (Blueprint $table): void {
            $table->uuid('id')->primary();
            $table->foreignUuid('table_id')->constrained('data_tables')->cascadeOnDelete();
            $table->integer('position');
            $table->jsonb('cells');
            $table->index(['table_id', 'position']);
        });

        Schema::create('routines', function (Blueprint $table): void {
            $table->uuid('id')->primary();
            $table->foreignUuid('project_id')->constrained()->cascadeOnDelete();
            $table->string('name', 120);
            $table->text('description')->default('');
            $table->uuid('version_id')->nullable();
            $table->integer('revision')->default(1);
            $table->timestampTz('binned_at', 6)->nullable();
            $table->timestampsTz(6);
        });
        DB::statement('create unique index routines_name on routines (project_id, lower(name)) where binned_at is null');

        Schema::create('routine_versions', function (Blueprint $table): void {
            $table->uuid('id')->primary();
            $table->foreignUuid('routine_id')->constrained()->cascadeOnDelete();
            $table->integer('number');
            $table->string('name', 120);
            $table->jsonb('parameters')->default('[]');
            $table->foreignUuid('author_id')->nullable()->constrained('users');
            $table->timestampTz('created_at', 6);
            $table->unique(['routine_id', 'number']);
        });
        DB::statement(
            'alter table routines add constraint routines_version_id_foreign foreign key (version_id) references ' .
                'routine_versions(id) deferrable initially deferred',
        );

        // A step belongs to a version of a case or of a routine, and is three texts or the use of a routine.
        DB::statement('alter table steps alter column case_version_id drop not null');
        Schema::table('steps', function (Blueprint $table): void {
            $table->foreignUuid('routine_version_id')->nullable()->constrained('routine_versions')->cascadeOnDelete();
            $table->foreignUuid('routine_id')->nullable()->constrained();
            $table->jsonb('values')->default('{}');
            $table->jsonb('files')->default('[]');
            $table->unique(['routine_version_id', 'position']);
        });
        DB::statement('alter table steps add constraint steps_owner_check check (num_nonnulls(case_version_id, routine_version_id) = 1)');
        DB::statement('create index steps_routine_index on steps (routine_id) where routine_id is not null');

        Schema::create('project_files', function (Blueprint $table): void {
            $table->foreignUuid('project_id')->constrained()->cascadeOnDelete();
            $table->string('sha256', 64);
            $table->foreign('sha256')->references('sha256')->on('files');
            $table->foreignUuid('added_by_id')->constrained('users');
            $table->timestampTz('created_at', 6);
            $table->primary(['project_id', 'sha256']);
        });
    }

    private function cases(): void
    {
        DB::statement('alter table cases drop constraint cases_priority_check');
        DB::statement(
            'alter table cases alter column priority type varchar(60), alter column type type varchar(60), alter ' .
                'column position type double precision',
        );
        Schema::table('cases', function (Blueprint $table): void {
            $table->integer('revision')->default(1);
            $table->smallInteger('priority_rank')->default(3);
            $table->jsonb('custom')->default('{}');
            $table->boolean('is_template')->default(false);
            $table->foreignUuid('table_id')->nullable()->constrained('data_tables');
            $table->uuid('approved_version_id')->nullable();
            $table->integer('steps_count')->default(0);
            $table->text('words')->default('');
            $table->timestampTz('last_walked_at', 6)->nullable();
            $table->foreignUuid('binned_by_id')->nullable()->constrained('users');
        });
        DB::statement(
            "alter table cases add column search tsvector generated always as (setweight(to_tsvector('simple', key " .
                "|| ' ' || title), 'A') || setweight(to_tsvector('simple', words), 'B')) stored",
        );
        DB::statement('create index cases_search on cases using gin (search)');
        DB::statement('create index cases_labels on cases using gin (labels)');
        DB::statement('create index cases_custom on cases using gin (custom jsonb_path_ops)');
        foreach (['state', 'type', 'priority_rank', 'owner_id', 'estimate_seconds', 'last_walked_at', 'updated_at', 'title'] as $column) {
            DB::statement("create index cases_by_{$column} on cases (project_id, {$column}, number) where binned_at is null");
        }
        DB::statement('create index cases_by_key on cases (project_id, key text_pattern_ops)');
        DB::statement('create index cases_by_number on cases (project_id, number) where binned_at is null');
        DB::statement('create index cases_binned on cases (project_id, binned_at) where binned_at is not null');
        DB::statement('create index cases_table on cases (table_id) where table_id is not null');

        Schema::table('case_versions', function (Blueprint $table): void {
            $table->foreignUuid('table_id')->nullable()->constrained('data_tables');
            $table->jsonb('files')->default('[]');
        });

        Schema::table('folders', static fn(Blueprint $table) => $table->timestampTz('binned_at', 6)->nullable());
        // The rows of the case's data table that an entry is walked with, in order.
        Schema::table('entries', static fn(Blueprint $table) => $table->jsonb('row_ids')->nullable());

        Schema::create('case_log', function (Blueprint $table): void {
            $table->uuid('id')->primary();
            $table->foreignUuid('case_id')->constrained('cases')->cascadeOnDelete();
            $table->foreignUuid('actor_id')->constrained('users');
            $table->string('kind', 24);
            $table->jsonb('payload')->default('{}');
            $table->integer('version')->nullable();
            $table->timestampTz('at', 6);
            $table->index(['case_id', 'id']);
        });
        DB::statement('create trigger case_log_append_only before update on case_log for each row execute function lucid_append_only()');

        Schema::create('case_editing', function (Blueprint $table): void {
            $table->foreignUuid('case_id')->constrained('cases')->cascadeOnDelete();
            $table->foreignUuid('user_id')->constrained('users')->cascadeOnDelete();
            $table->timestampTz('seen_at', 6);
            $table->primary(['case_id', 'user_id']);
        });

        Schema::create('case_doubles', function (Blueprint $table): void {
            $table->foreignUuid('case_id')->constrained('cases')->cascadeOnDelete();
            $table->foreignUuid('other_id')->constrained('cases')->cascadeOnDelete();
            $table->float('score');
            $table->boolean('set_aside')->default(false);
            $table->primary(['case_id', 'other_id']);
            $table->index('other_id');
        });
        DB::statement('alter table case_doubles add constraint case_doubles_order check (case_id < other_id)');
    }

    private function around(): void
    {
        Schema::create('requirements', function (Blueprint $table): void {
            $table->uuid('id')->primary();
            $table->foreignUuid('project_id')->constrained()->cascadeOnDelete();
            $table->integer('number');
            $table->string('key', 24)->unique();
            $table->text('title');
            $table->uuid('parent_id')->nullable();
            $table->timestampsTz(6);
            $table->unique(['project_id', 'number']);
        });
        Schema::table('requirements', static fn(Blueprint $table) => $table->foreign('parent_id')->references('id')->on('requirements'));

        Schema::create('case_requirements', function (Blueprint $table): void {
            $table->foreignUuid('case_id')->constrained('cases')->cascadeOnDelete();
            $table->foreignUuid('requirement_id')->constrained()->cascadeOnDelete();
            $table->primary(['case_id', 'requirement_id']);
            $table->index('requirement_id');
        });

        Schema::create('suites', function (Blueprint $table): void {
            $table->uuid('id')->primary();
            $table->foreignUuid('project_id')->constrained()->cascadeOnDelete();
            $table->string('name', 120);
            $table->string('kind', 12);
            $table->jsonb('filter')->default('{}');
            $table->foreignUuid('requirement_id')->nullable()->constrained();
            $table->timestampTz('accepted_at', 6)->nullable();
            $table->timestampTz('binned_at', 6)->nullable();
            $table->timestampsTz(6);
        });
        DB::statement(
            "alter table suites add constraint suites_kind_check check (kind in ('picked', 'rule', 'requirement') " .
                "and (kind <> 'requirement' or requirement_id is not null))",
        );
        DB::statement('create unique index suites_name on suites (project_id, lower(name)) where binned_at is null');

        // What a suite was when it was last accepted; of a hand-picked one, what it is.
        Schema::create('suite_cases', function (Blueprint $table): void {
            $table->foreignUuid('suite_id')->constrained()->cascadeOnDelete();
            $table->foreignUuid('case_id')->constrained('cases')->cascadeOnDelete();
            $table->integer('position');
            $table->primary(['suite_id', 'case_id']);
            $table->index('case_id');
        });

        Schema::create('saved_filters', function (Blueprint $table): void {
            $table->uuid('id')->primary();
            $table->foreignUuid('project_id')->constrained()->cascadeOnDelete();
            $table->foreignUuid('user_id')->constrained()->cascadeOnDelete();
            $table->string('name', 120);
            $table->boolean('shared')->default(false);
            $table->jsonb('filter');
            $table->timestampsTz(6);
            $table->unique(['project_id', 'user_id', 'name']);
        });

        Schema::create('case_messages', function (Blueprint $table): void {
            $table->uuid('id')->primary();
            $table->foreignUuid('project_id')->constrained()->cascadeOnDelete();
            $table->foreignUuid('case_id')->constrained('cases')->cascadeOnDelete();
            $table->integer('step')->nullable();
            $table->string('kind', 12);
            $table->text('body');
            $table->jsonb('proposal')->nullable();
            $table->foreignUuid('author_id')->constrained('users');
            $table->string('state', 12)->default('open');
            $table->text('answer')->default('');
            $table->foreignUuid('answered_by_id')->nullable()->constrained('users');
            $table->timestampTz('answered_at', 6)->nullable();
            $table->timestampTz('created_at', 6);
            $table->index(['case_id', 'state']);
            $table->index(['project_id', 'state', 'id']);
        });
        DB::statement(
            "alter table case_messages add constraint case_messages_check check (kind in ('question', 'suggestion') " .
                "and state in ('open', 'answered', 'taken', 'declined'))",
        );

        Schema::create('bulk_acts', function (Blueprint $table): void {
            $table->uuid('id')->primary();
            $table->foreignUuid('project_id')->constrained()->cascadeOnDelete();
            $table->foreignUuid('actor_id')->constrained('users');
            $table->text('title');
            $table->timestampTz('created_at', 6);
            $table->timestampTz('undone_at', 6)->nullable();
            $table->index(['project_id', 'id']);
        });
        // What a case was before an act on many, and which revision the act made of it.
        Schema::create('bulk_act_cases', function (Blueprint $table): void {
            $table->foreignUuid('act_id')->constrained('bulk_acts')->cascadeOnDelete();
            $table->foreignUuid('case_id')->constrained('cases')->cascadeOnDelete();
            $table->boolean('made')->default(false);
            $table->integer('revision');
            $table->jsonb('before')->default('{}');
            $table->primary(['act_id', 'case_id']);
        });
    }

    private function exchange(): void
    {
        Schema::create('case_imports', function (Blueprint $table): void {
            $table->uuid('id')->primary();
            $table->foreignUuid('project_id')->constrained()->cascadeOnDelete();
            $table->foreignUuid('author_id')->constrained('users');
            $table->text('name');
            $table->string('state', 12)->default('reading');
            $table->string('format', 8);
            $table->text('path');
            $table->jsonb('header')->default('[]');
            $table->jsonb('samples')->default('[]');
            $table->jsonb('mapping')->default('[]');
            $table->string('layout', 8)->default('step');
            $table->jsonb('facts')->default('{}');
            $table->jsonb('report')->default('[]');
            $table->integer('total')->default(0);
            $table->text('problem')->default('');
            $table->foreignUuid('act_id')->nullable()->constrained('bulk_acts');
            $table->timestampTz('created_at', 6);
            $table->timestampTz('finished_at', 6)->nullable();
            $table->index(['project_id', 'id']);
        });
        DB::statement(
            "alter table case_imports add constraint case_imports_state_check check (state in ('reading', 'ready', " .
                "'running', 'done', 'cancelled', 'failed', 'undone'))",
        );

        Schema::create('import_mappings', function (Blueprint $table): void {
            $table->foreignUuid('project_id')->constrained()->cascadeOnDelete();
            $table->string('fingerprint', 64);
            $table->jsonb('mapping');
            $table->string('layout', 8);
            $table->primary(['project_id', 'fingerprint']);
        });

        Schema::create('case_exports', function (Blueprint $table): void {
            $table->uuid('id')->primary();
            $table->foreignUuid('project_id')->constrained()->cascadeOnDelete();
            $table->foreignUuid('author_id')->constrained('users');
            $table->string('state', 12)->default('waiting');
            $table->string('format', 10);
            $table->jsonb('options')->default('{}');
            $table->integer('total')->default(0);
            $table->text('path')->default('');
            $table->bigInteger('bytes')->default(0);
            $table->text('problem')->default('');
            $table->timestampTz('created_at', 6);
            $table->index(['project_id', 'id']);
        });
    }
};
