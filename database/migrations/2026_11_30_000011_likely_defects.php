<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

return new class extends Migration {
    public function up(): void
    {
        DB::unprepared(
            <<<'SQL'
            -- Endings are cut as likeness cuts them (core/Text/Words), so that whole words are looked up and no beginnings.
            create or replace function lucid_stems(text) returns text language sql immutable strict parallel safe as $$
                select regexp_replace(public.lucid_fold($1), '\y(?=\w{5})(\w+?)(?:ing|es|ed|s)\y', '\1', 'g') $$;
            alter table defects add column said tsvector generated always as
                (to_tsvector('simple', lucid_stems(title || ' ' || actual))) stored;
            create index defects_said on defects using gin (said);
            create index defects_of_case on defects (project_id, case_id);
            create index defects_by_severity on defects (project_id, coalesce(array_position(
                array['critical', 'major', 'minor', 'trivial'], severity::text), 99), number);
            -- What somebody typed, folded as texts are, without their being told apart by accents.
            create or replace function lucid_any_word(words text) returns tsquery language sql stable as $$
                select to_tsquery('simple', lucid_fold(words)) $$;
            SQL
            ,
        );
    }

    public function down(): void
    {
        DB::unprepared(
            'drop function lucid_any_word(text); alter table defects drop column said; drop function lucid_stems(text); ' .
                'drop index defects_of_case; drop index defects_by_severity;',
        );
    }
};
