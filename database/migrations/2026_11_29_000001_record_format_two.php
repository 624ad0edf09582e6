<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;
use LucidStep\App\Support\Record\FormatTwo;

return new class extends Migration {
    public function up(): void
    {
        DB::statement("alter table events add column salts jsonb not null default '{}'");
        DB::statement("alter table cycle_events add column salts jsonb not null default '{}'");
        DB::statement('alter table attempts add column seal_signature text');
        DB::statement('alter table cycles add column log_signature text');
        DB::statement('alter table events disable trigger events_append_only');
        DB::statement('alter table cycle_events disable trigger cycle_events_append_only');
        app(FormatTwo::class)->rewrite();
        // An event keeps its bytes for ever. The salt of a text may go, and the text with it; its digest stays in the bytes.
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
                raise exception 'events are append-only';
            end $$;
            SQL
            ,
        );
        DB::statement('alter table events enable trigger events_append_only');
        DB::statement('alter table cycle_events enable trigger cycle_events_append_only');
    }
};
