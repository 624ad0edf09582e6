<?php

declare(strict_types=1);

// What ./lucid bench walk measures: a million step results, and an attempt of many rounds.
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;

/**
 * @param  list<string>  $people
 *
 * @return list<string> an open entry of VERDICTS steps for each
 */
function seed(string $project, array $people): array
{
    DB::transaction(static function () use ($project, $people): void {
        DB::statement('set constraints all deferred');
        DB::statement(
            'create temporary table made on commit drop as select i, gen_random_uuid() as id, gen_random_uuid() as ' .
                'version from generate_series(1, 2000) i',
        );
        DB::statement(
            'insert into cases (id, project_id, number, key, title, state, type, priority, priority_rank, ' .
                "version_id, position, steps_count, words, created_at, updated_at) select id, ?, i, 'BIG-C' || i, 'Case " .
                "' || i, 'approved', 'functional', 'high', 2, version, i, " .
                VERDICTS .
                ", '', now(), now() from made",
            [$project],
        );
        DB::statement(
            'insert into case_versions (id, case_id, number, title, created_at) select version, id, 1, \'Case \' || i, now() from made',
        );
        DB::statement(
            'insert into steps (id, case_version_id, position, action, data, expected) select gen_random_uuid(), ' .
                'version, s, \'Do \' || s, \'\', \'See\' from made, generate_series(1, ' .
                VERDICTS .
                ') s where i <= ' .
                TESTERS,
        );
        $cycle = (string) Str::uuid7();
        DB::statement(
            'insert into cycles (id, project_id, number, key, name, starts_on, ends_on, state, created_at, ' .
                "updated_at) values (?, ?, 1, 'BIG-R1', 'Cycle', current_date, current_date + 30, 'released', now(), now())",
            [$cycle, $project],
        );
        DB::statement(
            'insert into entries (id, project_id, cycle_id, case_id, case_version_id, position, assignee_id, ' .
                'created_at, updated_at) select gen_random_uuid(), ?, ?, id, version, i, (array[\'' .
                implode("','", $people) .
                '\']::uuid[])[1 + (i - 1) % ' .
                TESTERS .
                '], now(), now() from made',
            [$project, $cycle],
        );
        DB::statement(
            'create temporary table walked on commit drop as select gen_random_uuid() as id, e.id as entry_id, ' .
                'e.case_id, row_number() over (partition by e.id) as n, gen_random_uuid() as round from entries e, ' .
                'generate_series(1, 25) g where e.position > ' .
                TESTERS .
                ' limit ' .
                ATTEMPTS,
        );
        DB::statement(
            'insert into attempts (id, project_id, entry_id, number, tester_id, state, snapshot, has_verdict, ' .
                "roll_up, verdict, started_at, finished_at, sequence, head) select id, ?, entry_id, n, ?, 'finished', " .
                "'{\"steps\": []}', true, 'pass', 'pass', now() - interval '3 days', now() - interval '2 days', 0, " .
                "repeat('a', 64) from walked",
            [$project, $people[0]],
        );
        DB::statement("insert into rounds (id, attempt_id, position, roll_up) select round, id, 1, 'pass' from walked");
        DB::statement(
            'insert into step_results (id, round_id, position, verdict, active_ms, judged_at) select ' .
                "gen_random_uuid(), round, s, 'pass', 20000, now() from walked, generate_series(1, 20) s",
        );
        DB::statement('insert into counters (project_id, kind, last) values (?, \'case\', 5000), (?, \'cycle\', 1)', [$project, $project]);
    });
    // The application's role may not: the planner would guess.
    DB::connection('owner')->statement('vacuum analyze');

    return array_map(
        strval(...),
        DB::table('entries')
            ->where('project_id', $project)
            ->where('position', '<=', TESTERS)
            ->orderBy('position')
            ->pluck('id')
            ->all(),
    );
}

/**
 * @return string an entry of 60 steps and 12 rounds
 */
function large(string $project, string $person): string
{
    $ids = array_map(static fn(): string => (string) Str::uuid7(), range(0, 3));
    [$table, $case, $version, $entry] = $ids;
    DB::transaction(static function () use ($project, $person, $table, $case, $version, $entry): void {
        DB::statement('set constraints all deferred');
        DB::table('data_tables')->insert([
            'id' => $table,
            'project_id' => $project,
            'name' => 'Rows',
            'columns' => '[{"name": "who", "secret": false}, {"name": "fare", "secret": false}]',
            'created_at' => now(),
            'updated_at' => now(),
        ]);
        $rows = [];
        for ($i = 1; $i <= 12; $i++) {
            DB::table('data_rows')->insert([
                'id' => ($rows[] = (string) Str::uuid7()),
                'table_id' => $table,
                'position' => $i,
                'cells' => json_encode(["Person {$i}", "{$i}.40"]),
            ]);
        }
        DB::table('cases')->insert([
            'id' => $case,
            'project_id' => $project,
            'number' => 4999,
            'key' => 'BIG-C4999',
            'title' => 'Sixty steps',
            'state' => 'approved',
            'type' => 'functional',
            'priority' => 'high',
            'priority_rank' => 2,
            'version_id' => $version,
            'position' => 4999,
            'steps_count' => 60,
            'words' => '',
            'created_at' => now(),
            'updated_at' => now(),
        ]);
        DB::table('case_versions')->insert([
            'id' => $version,
            'case_id' => $case,
            'number' => 1,
            'title' => 'Sixty steps',
            'table_id' => $table,
            'created_at' => now(),
        ]);
        for ($i = 1; $i <= 60; $i++) {
            DB::table('steps')->insert([
                'id' => (string) Str::uuid7(),
                'case_version_id' => $version,
                'position' => $i,
                'action' => "Do {$i} for {{who}}",
                'data' => '{{who}}',
                'expected' => 'It costs {{fare}}',
            ]);
        }
        DB::table('entries')->insert([
            'id' => $entry,
            'project_id' => $project,
            'cycle_id' => DB::table('cycles')->where('project_id', $project)->value('id'),
            'case_id' => $case,
            'case_version_id' => $version,
            'position' => 5000,
            'assignee_id' => $person,
            'row_ids' => json_encode($rows),
            'rounds' => 12,
            'created_at' => now(),
            'updated_at' => now(),
        ]);
    });

    return $entry;
}
