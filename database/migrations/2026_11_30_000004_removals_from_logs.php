<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

/**
 * Words can be taken out of the chain and the log of a cycle, and of the log of the setup, where a removal says so; nothing
 * else of them can be changed.
 */
return new class extends Migration {
    public function up(): void
    {
        DB::statement('alter table removals drop constraint removals_kind_check');
        DB::statement(
            'alter table removals add constraint removals_kind_check check ' .
                "(kind in ('file', 'text', 'message', 'entry', 'cycle_event', 'cycle_log', 'setup_log'))",
        );
        DB::unprepared(
            <<<'SQL'
            create or replace function lucid_append_only() returns trigger language plpgsql as $$
            begin
                if tg_op = 'UPDATE' and tg_table_name = 'events' then
                    if (new.attempt_id, new.sequence, new.kind, new.actor_id, new.device_time, new.server_time, new.counter,
                        new.evidence, new.bytes, new.hash) is not distinct from (old.attempt_id, old.sequence, old.kind,
                        old.actor_id, old.device_time, old.server_time, old.counter, old.evidence, old.bytes, old.hash)
                        and new.salts <@ old.salts and new.salts <> old.salts
                        and exists (select 1 from removals r where r.attempt_id = new.attempt_id and r.kind = 'text'
                            and r.subject = new.sequence::text) then
                        return new;
                    end if;
                end if;
                if tg_op = 'UPDATE' and tg_table_name = 'cycle_events' then
                    if (to_jsonb(new) - 'payload' - 'salts') = (to_jsonb(old) - 'payload' - 'salts')
                        and new.salts <@ old.salts and new.salts <> old.salts
                        and exists (select 1 from removals r where r.kind = 'cycle_event'
                            and r.subject = new.cycle_id || '/' || new.sequence) then
                        return new;
                    end if;
                end if;
                if tg_op = 'UPDATE' and tg_table_name = 'cycle_log' then
                    if (to_jsonb(new) - 'reason') = (to_jsonb(old) - 'reason') and new.reason = '(removed)'
                        and exists (select 1 from removals r where r.kind = 'cycle_log' and r.subject = new.id::text) then
                        return new;
                    end if;
                end if;
                raise exception '% is append-only', tg_table_name;
            end $$;

            create trigger cycle_log_append_only before update on cycle_log for each row execute function lucid_append_only();

            -- What people wrote in a row of the setup, without some of it.
            create or replace function lucid_without_texts(line jsonb, texts jsonb) returns jsonb language sql immutable as $$
                select jsonb_object_agg(k, case
                    when k not in ('name', 'notes', 'description', 'address', 'choices', 'email') then v
                    when jsonb_typeof(v) = 'array' then (
                        select jsonb_agg(case when texts ? (x #>> '{}') then '"(removed)"'::jsonb else x end)
                        from jsonb_array_elements(v) x)
                    when jsonb_typeof(v) = 'string' and texts ? (v #>> '{}') then '"(removed)"'::jsonb
                    else v end)
                from jsonb_each(line) e (k, v)
            $$;

            -- The application may only read the log of the setup: this takes texts out of the lines of which a removal tells.
            create or replace function lucid_remove_from_setup_log(project uuid, texts jsonb) returns void
                language sql security definer set search_path = public as $$
                update setup_log s set old = lucid_without_texts(old, texts), new = lucid_without_texts(new, texts),
                    key = case when texts ? key then '(removed)' else key end
                where s.project_id = project and exists (
                    select from removals r where r.project_id = project and r.kind = 'setup_log' and r.subject = s.id::text)
            $$;
            SQL
            ,
        );
    }

    public function down(): void
    {
        DB::unprepared(
            'drop trigger cycle_log_append_only on cycle_log; drop function lucid_remove_from_setup_log(uuid, jsonb); ' .
                'drop function lucid_without_texts(jsonb, jsonb)',
        );
    }
};
