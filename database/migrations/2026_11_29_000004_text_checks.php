<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

/**
 * Why a version of a case cannot be walked, found when it is asked for. What it says goes with the routine or the table
 * that it depends on, whichever way that is written.
 */
return new class extends Migration {
    public function up(): void
    {
        DB::unprepared(
            <<<'SQL'
            create table text_checks (
                case_version_id uuid primary key references case_versions on delete cascade,
                errors jsonb not null
            );
            create index text_checks_with_errors on text_checks (case_version_id) where errors <> '[]';
            create index case_versions_table on case_versions (table_id) where table_id is not null;

            create or replace function lucid_forget_checks_of_table() returns trigger language plpgsql as $$
            begin
                perform pg_advisory_xact_lock(hashtextextended('text_checks ' || new.project_id, 0));
                delete from text_checks where case_version_id in (select id from case_versions where table_id = new.id);
                return null;
            end $$;
            create trigger data_tables_forget_checks after update of columns, name, binned_at on data_tables
                for each row when ((old.columns, old.name, old.binned_at) is distinct from (new.columns, new.name, new.binned_at))
                execute function lucid_forget_checks_of_table();

            create or replace function lucid_forget_checks_of_routine() returns trigger language plpgsql as $$
            begin
                perform pg_advisory_xact_lock(hashtextextended('text_checks ' || new.project_id, 0));
                with recursive using_it (id) as (
                    select new.id
                    union
                    select r.id from using_it u join steps s on s.routine_id = u.id join routines r on r.version_id = s.routine_version_id
                )
                delete from text_checks where case_version_id in (
                    select s.case_version_id from steps s join using_it u on s.routine_id = u.id where s.case_version_id is not null
                );
                return null;
            end $$;
            create trigger routines_forget_checks after update of version_id, name, binned_at on routines
                for each row when ((old.version_id, old.name, old.binned_at) is distinct from (new.version_id, new.name, new.binned_at))
                execute function lucid_forget_checks_of_routine();
            SQL
            ,
        );
    }

    public function down(): void
    {
        DB::unprepared(
            <<<'SQL'
            drop trigger routines_forget_checks on routines;
            drop trigger data_tables_forget_checks on data_tables;
            drop function lucid_forget_checks_of_routine();
            drop function lucid_forget_checks_of_table();
            drop index case_versions_table;
            drop table text_checks;
            SQL
            ,
        );
    }
};
