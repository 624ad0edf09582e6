<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

/**
 * What is said of a defect stands with its own words, so that one index finds both.
 */
return new class extends Migration {
    public function up(): void
    {
        DB::unprepared(
            <<<'SQL'
            alter table defects drop column searched;
            alter table defects add column talked text not null default '';
            update defects d set talked = t.words from (select defect_id, string_agg(text, ' ' order by created_at) as words
                from defect_comments where removed_at is null group by defect_id) t where t.defect_id = d.id;
            alter table defects add column searched text generated always as (lucid_fold(key || ' ' || title || ' ' || actual || ' ' ||
                expected || ' ' || preconditions || ' ' || steps || ' ' || environment || ' ' || body || ' ' || talked)) stored;
            create index defects_searched on defects using gin (searched gin_trgm_ops);
            drop index defect_comments_folded;
            alter table defect_comments drop column folded;
            create or replace function lucid_keep_talk() returns trigger language plpgsql as $$
            begin
                update defects d set talked = coalesce((select string_agg(c.text, ' ' order by c.created_at) from defect_comments c
                    where c.defect_id = d.id and c.removed_at is null), '')
                where d.id in (select defect_id from changed);
                return null;
            end $$;
            create trigger defect_comments_said after insert on defect_comments referencing new table as changed
                for each statement execute function lucid_keep_talk();
            create trigger defect_comments_mended after update on defect_comments referencing new table as changed
                for each statement execute function lucid_keep_talk();
            create trigger defect_comments_gone after delete on defect_comments referencing old table as changed
                for each statement execute function lucid_keep_talk();
            SQL
            ,
        );
    }

    public function down(): void
    {
        DB::unprepared(
            <<<'SQL'
            drop trigger defect_comments_said on defect_comments;
            drop trigger defect_comments_mended on defect_comments;
            drop trigger defect_comments_gone on defect_comments;
            drop function lucid_keep_talk();
            alter table defects drop column searched;
            alter table defects drop column talked;
            alter table defects add column searched text generated always as (lucid_fold(key || ' ' || title || ' ' || actual || ' ' ||
                expected || ' ' || preconditions || ' ' || steps || ' ' || environment || ' ' || body)) stored;
            create index defects_searched on defects using gin (searched gin_trgm_ops);
            alter table defect_comments add column folded text generated always as (lucid_fold(text)) stored;
            create index defect_comments_folded on defect_comments using gin (folded gin_trgm_ops);
            SQL
            ,
        );
    }
};
