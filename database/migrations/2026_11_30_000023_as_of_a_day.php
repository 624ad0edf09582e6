<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/**
 * What was so when: each line says what held from `since` until `until` (null: still). Written by triggers alone, by server time.
 */
return new class extends Migration {
    public function up(): void
    {
        $this->tables();
        $this->clock();
        $this->rounds();
        $this->entries();
        $this->others();
        $this->fill();
    }

    private function tables(): void
    {
        $held = static function (Blueprint $table): void {
            $table->timestampTz('since', 6);
            $table->timestampTz('until', 6)->nullable();
        };
        // What each round of a finished attempt counts as; state "skipped" of an attempt that has none which counts.
        Schema::create('round_outcomes', static function (Blueprint $table) use ($held): void {
            $table->id();
            $table->foreignUuid('project_id')->constrained()->cascadeOnDelete();
            $table->uuid('cycle_id');
            $table->uuid('entry_id');
            $table->uuid('attempt_id');
            $table->uuid('case_id');
            $table->integer('case_version')->nullable();
            $table->uuid('configuration_id')->nullable();
            $table->uuid('row_id')->nullable();
            $table->uuid('build_id')->nullable();
            $table->integer('round');
            $table->string('state', 16);
            $table->timestampTz('finished_at', 6);
            $held($table);
            $table->index('attempt_id');
            $table->index('entry_id');
            $table->index(['project_id', 'since']);
            $table->index('case_id');
        });
        // What each entry showed, and whether its cycle was released: a plan yet to be, or given up, counts for nothing.
        Schema::create('entry_states', static function (Blueprint $table) use ($held): void {
            $table->id();
            $table->foreignUuid('project_id')->constrained()->cascadeOnDelete();
            $table->uuid('cycle_id');
            $table->uuid('entry_id');
            $table->uuid('case_id');
            $table->uuid('configuration_id')->nullable();
            $table->jsonb('row_ids')->nullable();
            $table->string('state', 16);
            $table->boolean('released');
            $held($table);
            $table->index('entry_id');
            $table->index(['project_id', 'since']);
            $table->index('cycle_id');
        });
        // Where each requirement stood that was not dropped.
        Schema::create('requirement_places', static function (Blueprint $table) use ($held): void {
            $table->id();
            $table->foreignUuid('project_id')->constrained()->cascadeOnDelete();
            $table->uuid('requirement_id');
            $table->uuid('parent_id')->nullable();
            $table->text('title');
            $table->float('position');
            $held($table);
            $table->index('requirement_id');
            $table->index('project_id');
        });
        // When a case was retired or in the bin, and counted for nothing.
        Schema::create('case_absences', static function (Blueprint $table) use ($held): void {
            $table->id();
            $table->foreignUuid('project_id')->constrained()->cascadeOnDelete();
            $table->uuid('case_id');
            $held($table);
            $table->index('case_id');
        });
        Schema::create('build_places', static function (Blueprint $table) use ($held): void {
            $table->id();
            $table->foreignUuid('project_id')->constrained()->cascadeOnDelete();
            $table->uuid('build_id');
            $table->integer('position');
            $held($table);
            $table->index('build_id');
        });
    }

    private function clock(): void
    {
        DB::unprepared(
            <<<'SQL'
            -- The time of what happens; a demo and tests set another one for what they tell.
            create or replace function lucid_now() returns timestamptz language sql as $$
                select coalesce(nullif(current_setting('lucid.now', true), '')::timestamptz, clock_timestamp())
            $$;
            create or replace function lucid_link_requirement() returns trigger language plpgsql security definer
                set search_path from current as $$
            begin
                if tg_op = 'INSERT' then
                    select words_revision into new.seen_words from requirements where id = new.requirement_id;
                    return new;
                end if;
                update requirement_links set parted_at = lucid_now()
                    where case_id = old.case_id and requirement_id = old.requirement_id and parted_at is null;
                return old;
            end $$;
            -- Afterwards: one that is linked already, and so is left as it is, is not linked again.
            create or replace function lucid_requirement_linked() returns trigger language plpgsql security definer
                set search_path from current as $$
            begin
                insert into requirement_links (project_id, case_id, requirement_id, linked_at)
                    select project_id, new.case_id, id, lucid_now() from requirements where id = new.requirement_id;
                return null;
            end $$;
            create trigger case_requirements_noted after insert on case_requirements for each row
                execute function lucid_requirement_linked();
            SQL
            ,
        );
    }

    private function rounds(): void
    {
        DB::unprepared(
            <<<'SQL'
            -- Rules of the job, 2: a round counts unless it was left out or walked again; what was overruled, or judged from the list,
            -- counts with the final verdict.
            create or replace view counted_rounds as
                select e.project_id, e.cycle_id, e.id as entry_id, a.id as attempt_id, e.case_id,
                    (a.snapshot ->> 'version')::integer as case_version, a.configuration_id,
                    (e.row_ids ->> (x.first - 1))::uuid as row_id, a.build_id, coalesce(x.last, 0) as round,
                    case when x.last is null then 'skipped' when a.overruled or a.from_list then a.verdict else x.roll_up end as state,
                    a.finished_at
                from attempts a
                join entries e on e.id = a.entry_id
                left join lateral (
                    with recursive chain(last, roll_up, position, repeats) as (
                        select r.position, r.roll_up, r.position, r.repeats from rounds r where r.attempt_id = a.id and r.skipped is null
                            and not exists (select 1 from rounds n where n.attempt_id = a.id and n.repeats = r.position)
                        union all
                        select c.last, c.roll_up, o.position, o.repeats
                        from chain c join rounds o on o.attempt_id = a.id and o.position = c.repeats
                    ) select last, roll_up, position as first from chain where repeats is null
                ) x on true
                where a.state = 'finished';

            create or replace function lucid_note_rounds(attempt uuid, of_case uuid) returns void language plpgsql security definer
                set search_path from current as $$
            declare at timestamptz := lucid_now();
            begin
                -- One after the other: what another transaction writes for the same case is seen first.
                perform pg_advisory_xact_lock(hashtextextended('cells:' || of_case::text, 0));
                with counted as (select * from counted_rounds c where c.attempt_id = attempt),
                kept as (
                    select o.id, c.round from round_outcomes o join counted c using (attempt_id, round)
                    where o.until is null and (o.state, o.build_id, o.configuration_id, o.row_id, o.finished_at)
                        is not distinct from (c.state, c.build_id, c.configuration_id, c.row_id, c.finished_at)
                ), gone as (
                    update round_outcomes set until = at
                    where attempt_id = attempt and until is null and id not in (select id from kept)
                )
                insert into round_outcomes (project_id, cycle_id, entry_id, attempt_id, case_id, case_version, configuration_id, row_id,
                        build_id, round, state, finished_at, since)
                    select c.*, at from counted c where c.round not in (select round from kept);
                delete from round_outcomes where attempt_id = attempt and until <= since;
                perform lucid_refresh_cells(of_case);
            end $$;

            create or replace function lucid_refresh_cells(of uuid) returns void language plpgsql security definer
                set search_path from current as $$
            begin
                perform pg_advisory_xact_lock(hashtextextended('cells:' || of::text, 0));
                delete from coverage_cells where case_id = of;
                insert into coverage_cells
                    select distinct on (o.configuration_id, o.row_id, o.build_id, y.milestone_id) o.project_id, o.case_id,
                        o.configuration_id, o.row_id, o.build_id, y.milestone_id, o.entry_id, o.attempt_id, o.state, o.finished_at
                    from round_outcomes o join cycles y on y.id = o.cycle_id
                    where o.case_id = of and o.until is null and o.state <> 'skipped'
                    order by o.configuration_id, o.row_id, o.build_id, y.milestone_id, o.finished_at desc, o.attempt_id desc;
            end $$;

            create or replace function lucid_cells_of_attempt() returns trigger language plpgsql security definer
                set search_path from current as $$
            begin
                perform lucid_note_rounds(new.id, e.case_id) from entries e where e.id = new.entry_id;
                return null;
            end $$;
            create or replace function lucid_cells_of_round() returns trigger language plpgsql security definer
                set search_path from current as $$
            begin
                perform lucid_note_rounds(a.id, e.case_id) from attempts a join entries e on e.id = a.entry_id
                    where a.id = new.attempt_id and a.state = 'finished';
                return null;
            end $$;
            SQL
            ,
        );
    }

    private function entries(): void
    {
        DB::unprepared(
            <<<'SQL'
            create or replace function lucid_note_entry(of uuid) returns void language plpgsql security definer
                set search_path from current as $$
            declare
                at timestamptz := lucid_now();
                shown entry_states;
            begin
                select null, e.project_id, e.cycle_id, e.id, e.case_id, e.configuration_id, e.row_ids, e.display_state,
                        y.state in ('released', 'closed') into shown from entries e join cycles y on y.id = e.cycle_id where e.id = of;
                if exists (select 1 from entry_states s where s.entry_id = of and s.until is null and
                        (s.cycle_id, s.case_id, s.configuration_id, s.row_ids, s.state, s.released) is not distinct from
                        (shown.cycle_id, shown.case_id, shown.configuration_id, shown.row_ids, shown.state, shown.released)) then
                    return;
                end if;
                update entry_states set until = at where entry_id = of and until is null;
                delete from entry_states where entry_id = of and until <= since;
                if shown.entry_id is not null then
                    insert into entry_states
                            (project_id, cycle_id, entry_id, case_id, configuration_id, row_ids, state, released, since)
                        values (shown.project_id, shown.cycle_id, of, shown.case_id, shown.configuration_id, shown.row_ids, shown.state,
                            shown.released, at);
                end if;
            end $$;
            create or replace function lucid_entry_noted() returns trigger language plpgsql as $$
            begin
                perform lucid_note_entry(coalesce(new.id, old.id));
                return null;
            end $$;
            create trigger entries_noted_new after insert or delete on entries for each row execute function lucid_entry_noted();
            create trigger entries_noted after update on entries for each row
                when ((old.cycle_id, old.case_id, old.configuration_id, old.row_ids, old.display_state) is distinct from
                    (new.cycle_id, new.case_id, new.configuration_id, new.row_ids, new.display_state))
                execute function lucid_entry_noted();
            create or replace function lucid_cycle_noted() returns trigger language plpgsql as $$
            begin
                perform lucid_note_entry(id) from entries where cycle_id = new.id;
                return null;
            end $$;
            create trigger cycles_noted after update of state on cycles for each row
                when ((old.state in ('released', 'closed')) <> (new.state in ('released', 'closed'))) execute function lucid_cycle_noted();
            SQL
            ,
        );
    }

    private function others(): void
    {
        DB::unprepared(
            <<<'SQL'
            create or replace function lucid_requirement_noted() returns trigger language plpgsql security definer
                set search_path from current as $$
            begin
                update requirement_places set until = lucid_now() where requirement_id = new.id and until is null;
                delete from requirement_places where requirement_id = new.id and until <= since;
                if new.dropped_at is null then
                    insert into requirement_places (project_id, requirement_id, parent_id, title, position, since)
                        values (new.project_id, new.id, new.parent_id, new.title, new.position, lucid_now());
                end if;
                return null;
            end $$;
            create trigger requirements_noted_new after insert on requirements for each row execute function lucid_requirement_noted();
            create trigger requirements_noted after update on requirements for each row
                when ((old.parent_id, old.title, old.position, old.dropped_at) is distinct from
                    (new.parent_id, new.title, new.position, new.dropped_at))
                execute function lucid_requirement_noted();

            create or replace function lucid_case_noted() returns trigger language plpgsql security definer
                set search_path from current as $$
            begin
                update case_absences set until = lucid_now() where case_id = new.id and until is null;
                if new.state = 'retired' or new.binned_at is not null then
                    insert into case_absences (project_id, case_id, since) values (new.project_id, new.id, lucid_now());
                end if;
                return null;
            end $$;
            create trigger cases_noted after update on cases for each row
                when ((old.state = 'retired' or old.binned_at is not null) <> (new.state = 'retired' or new.binned_at is not null))
                execute function lucid_case_noted();
            create trigger cases_noted_new after insert on cases for each row
                when (new.state = 'retired' or new.binned_at is not null) execute function lucid_case_noted();

            create or replace function lucid_build_noted() returns trigger language plpgsql security definer
                set search_path from current as $$
            begin
                update build_places set until = lucid_now() where build_id = coalesce(new.id, old.id) and until is null;
                if new.id is not null then
                    insert into build_places (project_id, build_id, position, since)
                        values (new.project_id, new.id, new.position, lucid_now());
                end if;
                return null;
            end $$;
            create trigger builds_noted_new after insert or delete on builds for each row execute function lucid_build_noted();
            create trigger builds_noted after update of position on builds for each row
                when (old.position is distinct from new.position) execute function lucid_build_noted();
            SQL
            ,
        );
    }

    /**
     * What was before this was kept is known as it is, from the time it became so.
     */
    private function fill(): void
    {
        DB::unprepared(
            <<<'SQL'
            insert into round_outcomes (project_id, cycle_id, entry_id, attempt_id, case_id, case_version, configuration_id, row_id,
                    build_id, round, state, finished_at, since)
                select c.*, c.finished_at from counted_rounds c;
            insert into entry_states (project_id, cycle_id, entry_id, case_id, configuration_id, row_ids, state, released, since)
                select e.project_id, e.cycle_id, e.id, e.case_id, e.configuration_id, e.row_ids, e.display_state,
                    y.state in ('released', 'closed'),
                    coalesce(e.display_state_at, e.created_at)
                from entries e join cycles y on y.id = e.cycle_id;
            insert into requirement_places (project_id, requirement_id, parent_id, title, position, since)
                select project_id, id, parent_id, title, position, created_at from requirements where dropped_at is null;
            insert into case_absences (project_id, case_id, since)
                select project_id, id, coalesce(binned_at, updated_at) from cases where state = 'retired' or binned_at is not null;
            insert into build_places (project_id, build_id, position, since) select project_id, id, position, '-infinity' from builds;
            SQL
            ,
        );
    }

    public function down(): void
    {
        DB::unprepared(
            <<<'SQL'
            drop trigger case_requirements_noted on case_requirements;
            drop trigger builds_noted on builds;
            drop trigger builds_noted_new on builds;
            drop trigger cases_noted on cases;
            drop trigger cases_noted_new on cases;
            drop trigger requirements_noted on requirements;
            drop trigger requirements_noted_new on requirements;
            drop trigger cycles_noted on cycles;
            drop trigger entries_noted on entries;
            drop trigger entries_noted_new on entries;
            drop function lucid_requirement_linked,
                lucid_build_noted, lucid_case_noted, lucid_requirement_noted, lucid_cycle_noted, lucid_entry_noted,
                lucid_note_entry, lucid_note_rounds;
            drop view counted_rounds;
            SQL
            ,
        );
        foreach (['round_outcomes', 'entry_states', 'requirement_places', 'case_absences', 'build_places'] as $table) {
            Schema::dropIfExists($table);
        }
    }
};
