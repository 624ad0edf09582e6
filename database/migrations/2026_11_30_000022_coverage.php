<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

return new class extends Migration {
    public function up(): void
    {
        Schema::table('requirements', static function (Blueprint $table): void {
            // What must hold, in full (Markdown).
            $table->text('text')->default('');
            // What another program calls it; an import finds it by that.
            $table->text('external_id')->nullable();
            // What other programs say of it beside, by name.
            $table->jsonb('details')->default('{}');
            $table->float('position')->default(0);
            $table->integer('revision')->default(1);
            // Grows with title or text: cases linked before are to be looked at.
            $table->integer('words_revision')->default(1);
            $table->timestampTz('dropped_at', 6)->nullable();
            $table->unique(['project_id', 'external_id']);
            $table->index(['project_id', 'parent_id', 'position']);
        });
        DB::statement('update requirements set position = number');
        Schema::table('case_requirements', static function (Blueprint $table): void {
            // The words of the requirement that somebody saw the case fit.
            $table->integer('seen_words')->default(1);
        });
        Schema::create('requirement_log', static function (Blueprint $table): void {
            $table->uuid('id')->primary();
            $table->foreignUuid('project_id')->constrained()->cascadeOnDelete();
            $table->foreignUuid('requirement_id')->constrained()->cascadeOnDelete();
            $table->foreignUuid('actor_id')->constrained('users');
            $table->string('kind', 16);
            // What changed: each field with what it was and what it is.
            $table->jsonb('changes')->default('{}');
            // The import that did it.
            $table->uuid('import_id')->nullable();
            $table->timestampTz('at', 6);
            $table->index(['requirement_id', 'id']);
            $table->index(['project_id', 'at']);
            $table->index('import_id');
        });
        Schema::create('requirement_imports', static function (Blueprint $table): void {
            $table->uuid('id')->primary();
            $table->foreignUuid('project_id')->constrained()->cascadeOnDelete();
            $table->foreignUuid('author_id')->constrained('users');
            $table->text('name');
            $table->integer('made');
            $table->integer('changed');
            $table->timestampTz('undone_at', 6)->nullable();
            $table->timestampsTz(6);
            $table->index(['project_id', 'id']);
        });
        // Which case was linked to which requirement when; written by the triggers alone.
        Schema::create('requirement_links', static function (Blueprint $table): void {
            $table->id();
            $table->foreignUuid('project_id')->constrained()->cascadeOnDelete();
            $table->foreignUuid('case_id')->constrained('cases')->cascadeOnDelete();
            $table->foreignUuid('requirement_id')->constrained()->cascadeOnDelete();
            $table->timestampTz('linked_at', 6);
            $table->timestampTz('parted_at', 6)->nullable();
            $table->timestampTz('changed_at', 6)->storedAs('coalesce(parted_at, linked_at)');
            $table->index(['project_id', 'changed_at']);
            $table->index(['requirement_id', 'linked_at']);
            $table->index('case_id');
        });
        // The newest finished round of each case, configuration and data row, by build and milestone; written by the triggers alone.
        Schema::create('coverage_cells', static function (Blueprint $table): void {
            $table->foreignUuid('project_id')->constrained()->cascadeOnDelete();
            $table->foreignUuid('case_id')->constrained('cases')->cascadeOnDelete();
            $table->uuid('configuration_id')->nullable();
            $table->uuid('row_id')->nullable();
            $table->uuid('build_id')->nullable();
            $table->uuid('milestone_id')->nullable();
            $table->foreignUuid('entry_id')->constrained()->cascadeOnDelete();
            $table->foreignUuid('attempt_id')->constrained()->cascadeOnDelete();
            $table->string('state', 16);
            $table->timestampTz('finished_at', 6);
            $table->index('case_id');
            $table->index('entry_id');
            $table->index('attempt_id');
        });
        $this->links();
        $this->cells();
    }

    private function links(): void
    {
        DB::unprepared(
            <<<'SQL'
            create unique index coverage_cells_of on coverage_cells
                (project_id, case_id, configuration_id, row_id, build_id, milestone_id) nulls not distinct;
            create trigger requirement_log_append_only before update on requirement_log for each row execute function lucid_append_only();

            create or replace function lucid_link_requirement() returns trigger language plpgsql security definer
                set search_path from current as $$
            begin
                if tg_op = 'INSERT' then
                    select words_revision into new.seen_words from requirements where id = new.requirement_id;
                    insert into requirement_links (project_id, case_id, requirement_id, linked_at)
                        select project_id, new.case_id, id, clock_timestamp() from requirements where id = new.requirement_id;
                    return new;
                end if;
                update requirement_links set parted_at = clock_timestamp()
                    where case_id = old.case_id and requirement_id = old.requirement_id and parted_at is null;
                return old;
            end $$;
            create trigger case_requirements_linked before insert on case_requirements for each row
                execute function lucid_link_requirement();
            create trigger case_requirements_parted after delete on case_requirements for each row
                execute function lucid_link_requirement();
            insert into requirement_links (project_id, case_id, requirement_id, linked_at)
                select q.project_id, r.case_id, r.requirement_id, greatest(c.created_at, q.created_at)
                from case_requirements r join cases c on c.id = r.case_id join requirements q on q.id = r.requirement_id;

            -- A requirement is never above itself.
            create or replace function lucid_requirement_loop() returns trigger language plpgsql as $$
            declare above uuid := new.parent_id;
            begin
                while above is not null loop
                    if above = new.id then
                        raise exception 'A requirement cannot stand below itself.' using errcode = 'check_violation';
                    end if;
                    select parent_id into above from requirements where id = above;
                end loop;
                return new;
            end $$;
            create trigger requirements_no_loop before insert or update of parent_id on requirements for each row
                when (new.parent_id is not null) execute function lucid_requirement_loop();
            SQL
            ,
        );
    }

    private function cells(): void
    {
        DB::unprepared(
            <<<'SQL'
            -- Rules of the job, 2: a round counts unless it was left out or walked again; what was overruled, or judged from the list,
            -- counts with the final verdict.
            create or replace function lucid_refresh_cells(of uuid) returns void language plpgsql security definer
                set search_path from current as $$
            begin
                -- One after the other: what another transaction writes for the same case is seen first.
                perform pg_advisory_xact_lock(hashtextextended('cells:' || of::text, 0));
                delete from coverage_cells where case_id = of;
                insert into coverage_cells
                select distinct on (a.configuration_id, e.row_ids ->> (x.first - 1), a.build_id, y.milestone_id)
                    e.project_id, e.case_id, a.configuration_id, (e.row_ids ->> (x.first - 1))::uuid, a.build_id, y.milestone_id,
                    e.id, a.id, case when a.overruled or a.from_list then a.verdict else r.roll_up end, a.finished_at
                from entries e
                join cycles y on y.id = e.cycle_id
                join attempts a on a.entry_id = e.id and a.state = 'finished'
                join rounds r on r.attempt_id = a.id and r.skipped is null
                cross join lateral (
                    with recursive chain(position, repeats) as (
                        select r.position, r.repeats
                        union all
                        select o.position, o.repeats from chain c join rounds o on o.attempt_id = a.id and o.position = c.repeats
                    ) select position as first from chain where repeats is null
                ) x
                where e.case_id = of
                    and not exists (select 1 from rounds n where n.attempt_id = a.id and n.repeats = r.position)
                order by a.configuration_id, e.row_ids ->> (x.first - 1), a.build_id, y.milestone_id, a.finished_at desc, a.id desc;
            end $$;

            create or replace function lucid_cells_of_attempt() returns trigger language plpgsql security definer
                set search_path from current as $$
            begin
                perform lucid_refresh_cells(e.case_id) from entries e where e.id = coalesce(new.entry_id, old.entry_id);
                return null;
            end $$;
            create trigger attempts_cells_begun after insert on attempts for each row
                when (new.state = 'finished') execute function lucid_cells_of_attempt();
            create trigger attempts_cells after update on attempts for each row
                when ((new.state = 'finished' or old.state = 'finished') and (old.state, old.verdict, old.roll_up, old.overruled,
                    old.from_list, old.build_id, old.configuration_id, old.finished_at) is distinct from (new.state, new.verdict,
                    new.roll_up, new.overruled, new.from_list, new.build_id, new.configuration_id, new.finished_at))
                execute function lucid_cells_of_attempt();

            create or replace function lucid_cells_of_round() returns trigger language plpgsql security definer
                set search_path from current as $$
            begin
                perform lucid_refresh_cells(e.case_id) from attempts a join entries e on e.id = a.entry_id
                    where a.id = new.attempt_id and a.state = 'finished';
                return null;
            end $$;
            create trigger rounds_cells after update on rounds for each row
                when ((old.roll_up, old.skipped, old.repeats) is distinct from (new.roll_up, new.skipped, new.repeats))
                execute function lucid_cells_of_round();
            create trigger rounds_cells_more after insert on rounds for each row execute function lucid_cells_of_round();

            create or replace function lucid_cells_of_cycle() returns trigger language plpgsql security definer
                set search_path from current as $$
            begin
                perform lucid_refresh_cells(c.case_id) from (select distinct case_id from entries where cycle_id = new.id) c;
                return null;
            end $$;
            create trigger cycles_cells after update of milestone_id on cycles for each row
                when (old.milestone_id is distinct from new.milestone_id) execute function lucid_cells_of_cycle();
            select lucid_refresh_cells(c.case_id) from (select distinct case_id from entries) c;
            SQL
            ,
        );
    }

    public function down(): void
    {
        DB::unprepared(
            <<<'SQL'
            drop trigger cycles_cells on cycles;
            drop trigger rounds_cells on rounds;
            drop trigger rounds_cells_more on rounds;
            drop trigger attempts_cells on attempts;
            drop trigger attempts_cells_begun on attempts;
            drop trigger requirements_no_loop on requirements;
            drop trigger case_requirements_linked on case_requirements;
            drop trigger case_requirements_parted on case_requirements;
            drop function lucid_cells_of_cycle, lucid_cells_of_round, lucid_cells_of_attempt, lucid_refresh_cells, lucid_requirement_loop,
                lucid_link_requirement;
            SQL
            ,
        );
        Schema::dropIfExists('coverage_cells');
        Schema::dropIfExists('requirement_imports');
        Schema::dropIfExists('requirement_links');
        Schema::dropIfExists('requirement_log');
        Schema::table('case_requirements', static fn(Blueprint $table) => $table->dropColumn('seen_words'));
        Schema::table(
            'requirements',
            static fn(Blueprint $table) => $table->dropColumn([
                'text',
                'external_id',
                'details',
                'position',
                'revision',
                'words_revision',
                'dropped_at',
            ]),
        );
    }
};
