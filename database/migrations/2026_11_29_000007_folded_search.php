<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

/**
 * Words are found whatever their case and accents are, in every language: "GRÖSSE" finds "Größe". Case is folded as ICU does it,
 * so that it does not depend on the locale of the database.
 */
return new class extends Migration {
    public function up(): void
    {
        DB::unprepared(
            <<<'SQL'
            create extension if not exists unaccent;

            create or replace function lucid_fold(text) returns text language sql immutable strict parallel safe as $$
                select public.unaccent('public.unaccent', lower($1 collate "und-x-icu"))
            $$;

            -- All of some words, each of them may be cut short.
            create or replace function lucid_query(words text[]) returns tsquery language sql immutable strict parallel safe as $$
                select to_tsquery('simple', coalesce(string_agg(
                    '''' || replace(replace(public.lucid_fold(w), '\', '\\'), '''', '''''') || ''':*', ' & '), ''))
                from unnest(words) w
            $$;

            -- Finds the words of a query in a text as people wrote it.
            drop text search configuration if exists lucid_words;
            create text search configuration lucid_words (copy = simple);
            alter text search configuration lucid_words
                alter mapping for hword, hword_part, word with unaccent, simple;

            alter table cases drop column search;
            alter table cases add column search tsvector generated always as (
                setweight(to_tsvector('simple', lucid_fold(key || ' ' || title)), 'A') ||
                setweight(to_tsvector('simple', lucid_fold(words)), 'B')
            ) stored;
            create index cases_search on cases using gin (search);
            alter table cases add column folded text generated always as (lucid_fold(title || ' ' || key)) stored;
            create index cases_folded on cases using gin (folded gin_trgm_ops);
            alter table defects add column folded text generated always as (lucid_fold(title || ' ' || key)) stored;
            create index defects_folded on defects using gin (folded gin_trgm_ops);
            drop index if exists defects_title_trgm;
            SQL
            ,
        );
    }

    public function down(): void
    {
        DB::unprepared(
            <<<'SQL'
            create index defects_title_trgm on defects using gin (title gin_trgm_ops);
            alter table defects drop column folded;
            alter table cases drop column folded;
            alter table cases drop column search;
            alter table cases add column search tsvector generated always as (
                setweight(to_tsvector('simple', key || ' ' || title), 'A') || setweight(to_tsvector('simple', words), 'B')
            ) stored;
            create index cases_search on cases using gin (search);
            drop text search configuration lucid_words;
            drop function lucid_query(text[]);
            drop function lucid_fold(text);
            SQL
            ,
        );
    }
};
