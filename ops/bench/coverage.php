<?php

declare(strict_types=1);

// Measures coverage: the tree of 5,000 requirements over 100,000 cases and as many finished rounds, through several lenses; one
// requirement; and what keeping the cells costs a verdict.

use Illuminate\Support\Facades\DB;
use LucidStep\App\Models\Membership;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\User;
use LucidStep\Core\Access\Role;

require __DIR__ . '/support.php';

const CASES = 100_000;
const REQUIREMENTS = 5_000;

$json = in_array('--json', $argv, true);
$project = Project::query()
    ->create(['code' => 'BIG', 'name' => 'Big', 'policies' => []])
    ->refresh();
$me = User::query()->create(['name' => 'Lead', 'email' => 'lead@bench.test', 'password' => 'x']);
Membership::query()->create(['project_id' => $project->id, 'user_id' => $me->id, 'role' => Role::Lead]);
$token = $me->createToken('bench')->plainTextToken;
if (!$json) {
    echo "Making 5,000 requirements, 100,000 cases and what was walked of them …\n";
}
$p = $project->id;
$id = static fn(string $kind): string => "('{$kind}0000000-0000-7000-8000-' || lpad(to_hex(n), 12, '0'))::uuid";
DB::unprepared(
    <<<SQL
    insert into builds (id, project_id, name, position) select {$id('b')}, '{$p}', '4.' || n, n from generate_series(1, 20) n;
    insert into configurations (id, project_id, name, position) select {$id('c')}, '{$p}', 'Device ' || n, n from generate_series(1, 3) n;
    insert into cases (id, project_id, number, key, title, state, version_id, position, steps_count, created_at, updated_at)
        select {$id('1')}, '{$p}', n, 'BIG-C' || n, 'Case ' || n, 'approved', {$id(
        '2',
    )}, n, 1, now(), now() from generate_series(1, 100000) n;
    insert into case_versions (id, case_id, number, title, author_id, created_at)
        select {$id('2')}, {$id('1')}, 1, 'Case ' || n, '{$me->id}', now() from generate_series(1, 100000) n;
    insert into requirements (id, project_id, number, key, title, position, parent_id, created_at, updated_at)
        select {$id('3')}, '{$p}', n, 'BIG-Q' || n, 'Requirement ' || n, n, case when n > 50 then
            ('30000000-0000-7000-8000-' || lpad(to_hex(1 + (n - 51) / 10), 12, '0'))::uuid end, now(), now()
        from generate_series(1, 5000) n order by n;
    insert into case_requirements (case_id, requirement_id)
        select {$id('1')}, ('30000000-0000-7000-8000-' || lpad(to_hex(1 + n % 5000), 12, '0'))::uuid from generate_series(1, 100000) n;
    insert into cycles (id, project_id, number, key, name, build_id, starts_on, ends_on, state, created_at, updated_at)
        select {$id('4')}, '{$p}', n, 'BIG-R' || n, 'Cycle ' || n, {$id('b')}, now(), now(), 'released', now(), now()
        from generate_series(1, 20) n;
    insert into entries (id, project_id, cycle_id, case_id, case_version_id, configuration_id, position, display_state, rounds, row_ids,
            attempts_count, created_at, updated_at)
        select {$id('5')}, '{$p}', ('40000000-0000-7000-8000-' || lpad(to_hex(1 + n % 20), 12, '0'))::uuid, {$id('1')}, {$id('2')},
            ('c0000000-0000-7000-8000-' || lpad(to_hex(1 + n % 3), 12, '0'))::uuid, n,
            (array['pass', 'pass', 'pass', 'fail', 'blocked'])[1 + n % 5], 1, '[]', 1, now(), now() from generate_series(1, 90000) n;
    SQL
    ,
);
$owner = DB::connection('owner');
// Filled at once: what the triggers do for one is measured below.
$owner->unprepared(
    <<<SQL
    alter table attempts disable trigger attempts_cells_begun;
    alter table rounds disable trigger rounds_cells_more;
    insert into attempts (id, project_id, entry_id, number, tester_id, build_id, configuration_id, state, snapshot, roll_up, verdict,
            started_at, finished_at, head)
        select {$id('6')}, '{$p}', {$id('5')}, 1, '{$me->id}', ('b0000000-0000-7000-8000-' || lpad(to_hex(1 + n % 20), 12, '0'))::uuid,
            ('c0000000-0000-7000-8000-' || lpad(to_hex(1 + n % 3), 12, '0'))::uuid, 'finished', '{}',
            (array['pass', 'pass', 'pass', 'fail', 'blocked'])[1 + n % 5], (array['pass', 'pass', 'pass', 'fail', 'blocked'])[1 + n % 5],
            now(), now(), '' from generate_series(1, 90000) n;
    insert into rounds (id, attempt_id, position, data_row, roll_up)
        select {$id('7')}, {$id(
        '6',
    )}, 1, '{}', (array['pass', 'pass', 'pass', 'fail', 'blocked'])[1 + n % 5] from generate_series(1, 90000) n;
    alter table attempts enable trigger attempts_cells_begun;
    alter table rounds enable trigger rounds_cells_more;
    insert into round_outcomes (project_id, cycle_id, entry_id, attempt_id, case_id, case_version, configuration_id, row_id, build_id,
            round, state, finished_at, since)
        select c.*, now() - n * interval '1 minute' from counted_rounds c
        join lateral (select ('x' || right(c.entry_id::text, 8))::bit(32)::int % 40000) x(n) on true;
    insert into coverage_cells select project_id, case_id, configuration_id, row_id, build_id, null, entry_id, attempt_id, state,
        finished_at from round_outcomes;
    update entry_states set since = now() - interval '40 days';
    update requirement_places set since = now() - interval '40 days';
    update build_places set since = now() - interval '40 days';
    update requirement_links set linked_at = now() - interval '40 days';
    SQL
    ,
);
$owner->statement('vacuum analyze');
$ok = true;
$p95 = static function (string $path, int $times) use ($token): float {
    requests(array_fill(0, 4, ['GET', $path]), $token);

    return percentile(requests(array_fill(0, $times, ['GET', $path]), $token), 0.95);
};
$bare = $p95('/api/v1/bench/bare', 80);
tell('bare JSON route, p95', $bare, 'ms', null, $json);
$tree = '/api/v1/projects/BIG/coverage';
$weekAgo = gmdate('Y-m-d', time() - 7 * 86_400);
foreach (
    [
        'tree of 5,000 over 100,000 cases' => $tree,
        'tree through a build' => "{$tree}?build=b0000000-0000-7000-8000-000000000003",
        'tree through a configuration' => "{$tree}?configuration=c0000000-0000-7000-8000-000000000002",
        'grid of 5,000 by the 12 newest of 20 builds' => "{$tree}/grid",
        'grid of 5,000 by configuration' => "{$tree}/grid?by=configuration",
        'tree as of a week ago' => "{$tree}?as_of={$weekAgo}",
        'a requirement with its cases' => '/api/v1/requirements/BIG-Q77',
    ]
    as $name => $path
) {
    $took = $p95($path, 24);
    tell("{$name}, p95", $took, 'ms', null, $json);
    $ok = tell("{$name}, p95 to the bare route", $took / $bare, 'times', 10, $json) && $ok;
}
$began = microtime(true);
do {
    $answer = answer("{$tree}/trend", $token);
} while ($answer['missing'] > 0);
tell('trend of 30 days, counted for the first time', microtime(true) - $began, 's', 60, $json);
$took = $p95("{$tree}/trend", 24);
tell('trend of 30 days, p95', $took, 'ms', null, $json);
$ok = tell('trend of 30 days, p95 to the bare route', $took / $bare, 'times', 10, $json) && $ok;
$anew = [];
for ($n = 1; $n <= 5; $n++) {
    $words = json_encode(['title' => "Requirement 77, for the {$n}th time", 'revision' => $n], JSON_THROW_ON_ERROR);
    requests([['PUT', '/api/v1/requirements/BIG-Q77', $words]], $token);
    $anew[] = requests([['GET', $tree]], $token, 1)[0];
}
sort($anew);
tell('tree read anew after a requirement changed, median', percentile($anew, 0.5), 'ms', null, $json);
$began = microtime(true);
for ($n = 1; $n <= 500; $n++) {
    DB::select('select lucid_refresh_cells(?)', [sprintf('10000000-0000-7000-8000-%012x', $n)]);
}
tell('keeping the cells of a case after a verdict', (microtime(true) - $began) * 2, 'ms', 5, $json);
exit($ok ? 0 : 1);
