<?php

declare(strict_types=1);

// Measures planning: the plan and the board of a cycle of 10,000 entries, adding 5,000, balancing 10,000 over 40 people, pairs.

use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Cycles\Actions\AssignEntries;
use LucidStep\App\Models\Cycle;
use LucidStep\App\Models\Membership;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\User;
use LucidStep\Core\Access\Role;
use LucidStep\Core\Planning\Assignee;
use LucidStep\Core\Planning\Axis;
use LucidStep\Core\Planning\Balance;
use LucidStep\Core\Planning\Candidate;
use LucidStep\Core\Planning\Combinations;
use LucidStep\Core\Planning\Conditions;
use LucidStep\Core\Planning\ShortOfTime;

require __DIR__ . '/support.php';

const CASES = 5000;
const ENTRIES = 10_000;
const PEOPLE = 40;

$json = in_array('--json', $argv, true);
$project = Project::query()
    ->create(['code' => 'BIG', 'name' => 'Big', 'policies' => []])
    ->refresh();
$user = User::query()->create(['name' => 'Bench', 'email' => 'bench@bench.test', 'password' => bin2hex(random_bytes(12))]);
Membership::query()->create(['project_id' => $project->id, 'user_id' => $user->id, 'role' => Role::Lead]);
$token = $user->createToken('bench')->plainTextToken;
if (!$json) {
    echo 'Making a cycle of ' . number_format(ENTRIES) . " entries over 5,000 cases …\n";
}
$cycle = seed($project->id, $user->id);
$ok = true;
$get = static fn(string $path, int $times): array => array_fill(0, $times, ['GET', $path]);
requests($get('/api/v1/bench/bare', 60), $token);
requests($get('/api/v1/cycles/BIG-R2/plan', 8), $token);
$took = requests($get('/api/v1/bench/bare', 400), $token);
$bare = percentile($took, 0.5);
$late = percentile($took, 0.95);
$ok = tell('bare JSON route, median', $bare, 'ms', null, $json) && $ok;
// A page is open when its head and the first window of its entries are there; it asks for both at once.
foreach (['plan' => '/api/v1/cycles/BIG-R1/plan', 'board' => '/api/v1/cycles/BIG-R1'] as $name => $path) {
    $opens = [];
    for ($i = 0; $i < 15; $i++) {
        $began = microtime(true);
        requests([['GET', $path], ['GET', '/api/v1/cycles/BIG-R1/entries']], $token, 2);
        $opens[] = (microtime(true) - $began) * 1000;
    }
    sort($opens);
    $ok = tell("{$name} of 10,000 entries opens, median", percentile($opens, 0.5), 'ms', 150, $json) && $ok;
    $ok = tell("{$name} of 10,000 entries to the bare route", percentile($opens, 0.5) / $bare, 'times', 10, $json) && $ok;
}
foreach (
    [
        'entries in the order of the cycle' => '',
        'entries by title' => '?sort=title',
        'entries that are held' => '?shows=held',
        'entries by words' => '?q=case+47',
    ]
    as $name => $query
) {
    $took = requests($get("/api/v1/cycles/BIG-R1/entries{$query}", 60), $token);
    $ok = tell("{$name}, p95 to the bare route", percentile($took, 0.95) / $late, 'times', 5, $json) && $ok;
}
$took = requests($get('/api/v1/cycles/BIG-R2/plan', 60), $token);
$ok = tell('plan of 50 entries, median', percentile($took, 0.5), 'ms', 60, $json) && $ok;
$ok = tell('plan of 50 entries to the bare route', percentile($took, 0.5) / $bare, 'times', 5, $json) && $ok;
$took = requests(
    array_fill(0, 10, [
        'POST',
        '/api/v1/projects/BIG/selection-counts',
        (string) json_encode(['picks' => ['filter' => ['state' => 'approved']]]),
    ]),
    $token,
    1,
);
$ok = tell('counting 5,000 picked cases, median', percentile($took, 0.5), 'ms', 250, $json) && $ok;
$began = microtime(true);
requests([['POST', '/api/v1/cycles/BIG-R2/entries', (string) json_encode(['picks' => ['filter' => ['state' => 'approved']]])]], $token, 1);
if (DB::table('entries')->join('cycles', 'cycles.id', '=', 'cycle_id')->where('cycles.key', 'BIG-R2')->count() < CASES) {
    throw new RuntimeException('The entries were not added.');
}
$ok = tell('adding 5,000 entries', microtime(true) - $began, 's', 2, $json) && $ok;
$people = array_map(
    strval(...),
    DB::table('memberships')->where('project_id', $project->id)->where('role', 'tester')->pluck('user_id')->all(),
);
$took = requests(
    array_fill(0, 5, ['POST', '/api/v1/cycles/BIG-R1/assignment-previews', (string) json_encode(['people' => $people])]),
    $token,
    1,
);
$ok = tell('balancing 10,000 entries over 40 people, seen beforehand', percentile($took, 0.5), 'ms', 500, $json) && $ok;
$work = AssignEntries::work(Cycle::query()->findOrFail($cycle));
$began = microtime(true);
Balance::of(array_map(static fn(string $id): Assignee => new Assignee($id, 360), $people), $work, Conditions::of([]));
$ok = tell('of that the rules alone', (microtime(true) - $began) * 1000, 'ms', 300, $json) && $ok;
$took = requests([['POST', '/api/v1/cycles/BIG-R1/assignments', (string) json_encode(['people' => $people])]], $token, 1);
$ok = tell('handing 10,000 entries out', $took[0], 'ms', 3000, $json) && $ok;
$began = microtime(true);
$pairs = (new Combinations(
    array_map(static fn(int $i): Axis => new Axis("Axis {$i}", array_map(static fn(int $v): string => "v{$v}", range(1, 6))), range(1, 6)),
))->pairs();
$ok = tell('pairs over 6 axes of 6 values', (microtime(true) - $began) * 1000, 'ms', 1000, $json) && $ok;
$ok = tell('pairs over 6 axes of 6 values, configurations', count($pairs->configurations), '', 54, $json) && $ok;
mt_srand(1);
$candidates = array_map(
    static fn(int $i): Candidate => new Candidate("c{$i}", mt_rand(60, 1200), (float) mt_rand(1, 24), ['r' . mt_rand(0, 60)]),
    range(1, 1000),
);
$began = microtime(true);
ShortOfTime::plan($candidates, 3600 * 20);
$ok = tell('short of time: 1,000 candidates, 20 hours', (microtime(true) - $began) * 1000, 'ms', 500, $json) && $ok;
exit($ok ? 0 : 1);

function seed(string $project, string $user): string
{
    $first = '';
    DB::transaction(static function () use ($project, &$first): void {
        DB::statement('set constraints all deferred');
        DB::statement(
            'create temporary table made on commit drop as select i, gen_random_uuid() as id, gen_random_uuid() as ' .
                'version from generate_series(1, ' .
                CASES .
                ') i',
        );
        DB::statement(
            "insert into cases (id, project_id, number, key, title, state, type, priority, priority_rank,
                version_id, position, steps_count, words, created_at, updated_at, estimate_seconds, walk_times)
            select id, ?, i, 'BIG-C' || i, 'Case ' || i || ' of the ferry', 'approved', 'functional',
                (array['critical', 'high', 'medium', 'low'])[1 + i % 4], 1 + i % 4, version, i, 5, '', now(),
                now(), 60 + i % 600, case when i % 3 = 0 then '[120, 130, 110]' else '[]' end::jsonb from made",
            [$project],
        );
        DB::statement(
            'insert into case_versions (id, case_id, number, title, created_at) select version, id, 1, \'Case \' || i, now() from made',
        );
        DB::statement(
            'insert into steps (id, case_version_id, position, action, data, expected) select gen_random_uuid(), ' .
                "version, s, 'Do', '', 'See' from made, generate_series(1, 5) s",
        );
        DB::statement(
            "insert into users (id, name, email, password) select gen_random_uuid(), 'Tester ' || i, 'tester' || i " .
                "|| '@bench.test', 'x' from generate_series(1, " .
                PEOPLE .
                ') i',
        );
        DB::statement(
            'insert into memberships (id, project_id, user_id, role, minutes_per_day) select gen_random_uuid(), ?, ' .
                "id, 'tester', 360 from users where email like 'tester%'",
            [$project],
        );
        DB::statement(
            "insert into configurations (id, project_id, name, position) select gen_random_uuid(), ?, 'Configuration " .
                "' || i, i from generate_series(1, 2) i",
            [$project],
        );
        foreach ([1 => ENTRIES, 2 => 50] as $number => $n) {
            $id = (string) Illuminate\Support\Str::uuid7();
            $first = 1 === $number ? $id : $first;
            DB::statement(
                'insert into cycles (id, project_id, number, key, name, starts_on, ends_on, state, created_at, ' .
                    "updated_at) values (?, ?, ?, ?, ?, current_date, current_date + 30, 'released', now(), now())",
                [$id, $project, $number, "BIG-R{$number}", "Cycle {$number}"],
            );
            DB::statement(
                'insert into entries (id, project_id, cycle_id, case_id, case_version_id, configuration_id, position, ' .
                    'created_at, updated_at) select gen_random_uuid(), ?, ?, m.id, m.version, c.id, row_number() over (order ' .
                    'by m.i, c.position), now(), now() from made m, configurations c where c.project_id = ? order by m.i, ' .
                    'c.position limit ' .
                    $n,
                [$project, $id, $project],
            );
            DB::statement(
                "insert into entry_conditions (entry_id, needs_id, kind) select a.id, b.id, 'only_if_passed' from " .
                    'entries a join entries b on b.cycle_id = a.cycle_id and b.position = a.position - 2 where a.cycle_id = ' .
                    '? and a.position % 10 in (5, 6)',
                [$id],
            );
        }
        DB::statement('insert into counters (project_id, kind, last) values (?, ?, ?), (?, ?, ?)', [
            $project,
            'case',
            CASES,
            $project,
            'cycle',
            2,
        ]);
    });
    // The application's role may not: the planner would guess.
    DB::connection('owner')->statement('vacuum analyze');

    return $first;
}
