<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

/**
 * What changes in the setup of a project is written down by the database itself, whatever way the change takes.
 */
return new class extends Migration {
    /** The columns that are looked at, by table; all of them where there are none. */
    private const TABLES = [
        'projects' => ['name', 'policies', 'working_days', 'holidays', 'time_zone', 'retention_days', 'storage_limit_mb'],
        'memberships' => ['user_id', 'role', 'minutes_per_day', 'days_off'],
        'milestones' => ['name', 'type', 'description', 'due_on'],
        'releases' => ['name'],
        'builds' => ['name', 'release_id'],
        'environments' => ['name', 'address', 'build_id', 'notes'],
        'configurations' => ['name'],
        'axes' => ['name'],
        'axis_values' => ['name', 'axis_id'],
        'forbidden_pairs' => ['value_id', 'other_id'],
        'list_items' => ['list', 'value', 'name', 'weight', 'position'],
        'custom_fields' => ['name', 'kind', 'choices', 'required'],
        'labels' => ['name'],
    ];

    public function up(): void
    {
        DB::unprepared(
            <<<'SQL'
            create table setup_log (
                id bigserial primary key,
                project_id uuid not null references projects (id) on delete cascade,
                at timestamptz not null default clock_timestamp(),
                actor_id uuid,
                act text not null,
                subject text not null,
                key text not null,
                old jsonb,
                new jsonb
            );
            create index setup_log_project on setup_log (project_id, id);
            create index setup_log_act on setup_log (act, id);

            create or replace function lucid_log_setup() returns trigger language plpgsql security definer set search_path = public as $$
            declare
                was jsonb := case when tg_op = 'INSERT' then null else to_jsonb(old) end;
                is_now jsonb := case when tg_op = 'DELETE' then null else to_jsonb(new) end;
                row jsonb := coalesce(case when tg_op = 'DELETE' then null else to_jsonb(new) end, to_jsonb(old));
                project uuid;
                names text;
            begin
                was := (select jsonb_object_agg(k, was -> k) from unnest(tg_argv::text[]) k where was ? k);
                is_now := (select jsonb_object_agg(k, is_now -> k) from unnest(tg_argv::text[]) k where is_now ? k);
                if was is not distinct from is_now then
                    return null;
                end if;
                project := case tg_table_name
                    when 'projects' then (row ->> 'id')::uuid
                    when 'axis_values' then (select project_id from axes where id = (row ->> 'axis_id')::uuid)
                    when 'forbidden_pairs' then (
                        select a.project_id from axis_values v join axes a on a.id = v.axis_id where v.id = (row ->> 'value_id')::uuid)
                    else (row ->> 'project_id')::uuid end;
                -- What goes with its axis, or with its project, goes without a word of its own.
                if project is null or not exists (select from projects where id = project) then
                    return null;
                end if;
                if tg_table_name = 'forbidden_pairs' then
                    names := (select string_agg(v.name, ' with ' order by v.id = (row ->> 'other_id')::uuid) from axis_values v
                        where v.id in ((row ->> 'value_id')::uuid, (row ->> 'other_id')::uuid));
                    was := case when was is null then null else jsonb_build_object('name', names) end;
                    is_now := case when is_now is null then null else jsonb_build_object('name', names) end;
                end if;
                insert into setup_log (project_id, actor_id, act, subject, key, old, new) values (
                    project,
                    nullif(current_setting('lucid.actor', true), '')::uuid,
                    coalesce(nullif(current_setting('lucid.act', true), ''), txid_current()::text),
                    tg_table_name,
                    case tg_table_name
                        when 'list_items' then (row ->> 'list') || '/' || (row ->> 'value')
                        when 'labels' then row ->> 'name'
                        when 'memberships' then row ->> 'user_id'
                        when 'forbidden_pairs' then (row ->> 'value_id') || '/' || (row ->> 'other_id')
                        else row ->> 'id' end,
                    was,
                    is_now
                );
                return null;
            end $$;
            SQL
            ,
        );
        foreach (self::TABLES as $table => $columns) {
            $names = implode(', ', array_map(static fn(string $c): string => "'{$c}'", $columns));
            $of = implode(', ', $columns);
            DB::statement(
                "create trigger {$table}_logged after insert or delete or update of {$of} on {$table} " .
                    "for each row execute function lucid_log_setup({$names})",
            );
        }
    }

    public function down(): void
    {
        foreach (array_keys(self::TABLES) as $table) {
            DB::statement("drop trigger {$table}_logged on {$table}");
        }
        DB::unprepared('drop function lucid_log_setup(); drop table setup_log;');
    }
};
