<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/**
 * An archived project can be deleted with all that was recorded in it: by a function of the owner of the tables, since the
 * application may delete nothing of a record.
 */
return new class extends Migration {
    public function up(): void
    {
        Schema::table('projects', static fn(Blueprint $table) => $table->timestampTz('deleting_at', 6)->nullable());
        Schema::create('project_deletions', static function (Blueprint $table): void {
            $table->uuid('id')->primary();
            $table->string('code', 12);
            $table->text('name');
            $table->foreignUuid('actor_id')->nullable()->constrained('users')->nullOnDelete();
            $table->timestampTz('asked_at', 6);
            $table->timestampTz('done_at', 6)->nullable();
        });
        $guard = DB::selectOne("select pg_get_functiondef('lucid_append_only()'::regprocedure) as text");
        DB::unprepared(
            preg_replace(
                '/\bbegin\b/i',
                "begin\n    -- A whole project goes, by the one function that may.\n    if tg_op = 'DELETE' and " .
                    "coalesce(current_setting('lucid.deleting', true), '') <> '' then\n        return old;\n    end if;",
                (string) $guard->text,
                1,
            ) ?? '',
        );
        DB::unprepared(
            <<<'SQL'
            create or replace function lucid_delete_project(project uuid) returns void
                language plpgsql security definer set search_path = public as $$
            begin
                if not exists (select from projects p where p.id = project and p.archived_at is not null and p.deleting_at is not null) then
                    raise exception 'only an archived project that was asked to go is deleted';
                end if;
                perform set_config('lucid.deleting', project::text, true);
                delete from cycle_events where cycle_id in (select id from cycles c where c.project_id = project);
                delete from events where attempt_id in (select id from attempts a where a.project_id = project);
                delete from removals r where r.project_id = project;
                delete from late_commands l where l.project_id = project;
                delete from case_log where case_id in (select id from cases c where c.project_id = project);
                update entries e set open_attempt_id = null, last_attempt_id = null where e.project_id = project;
                delete from attempts a where a.project_id = project;
                delete from defects d where d.project_id = project;
                delete from entries e where e.project_id = project;
                delete from cycles c where c.project_id = project;
                delete from case_imports i where i.project_id = project;
                update cases c set version_id = null, folder_id = null, table_id = null where c.project_id = project;
                delete from steps where case_version_id in (
                    select v.id from case_versions v join cases c on c.id = v.case_id where c.project_id = project);
                delete from cases c where c.project_id = project;
                delete from steps where routine_version_id in (
                    select v.id from routine_versions v join routines r on r.id = v.routine_id where r.project_id = project);
                update routines r set version_id = null where r.project_id = project;
                delete from projects p where p.id = project;
                perform set_config('lucid.deleting', '', true);
            end $$;
            SQL
            ,
        );
    }

    public function down(): void
    {
        DB::unprepared('drop function lucid_delete_project(uuid)');
        Schema::dropIfExists('project_deletions');
        Schema::table('projects', static fn(Blueprint $table) => $table->dropColumn('deleting_at'));
    }
};
