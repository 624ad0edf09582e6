<?php

declare(strict_types=1);

// Measures sessions: 40 testers who write at once, 40 pages that are observed, a timeline of 5,000 lines, and trimming 5,000 acts.

use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use LucidStep\App\Models\Membership;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\User;
use LucidStep\Core\Access\Role;
use LucidStep\Core\Sessions\LineKind;
use LucidStep\Core\Sessions\Reached;
use LucidStep\Core\Sessions\SessionLine;
use LucidStep\Core\Sessions\Trimming;

require __DIR__ . '/support.php';
require __DIR__ . '/clients.php';

const WRITERS = 40;
const EACH = 25;
const LINES = 5_000;
const OBSERVED_SECONDS = 60;

$json = in_array('--json', $argv, true);
$project = Project::query()
    ->create(['code' => 'BIG', 'name' => 'Big', 'policies' => []])
    ->refresh();
$tokens = $sessions = [];
for ($i = 0; $i < WRITERS; $i++) {
    $user = User::query()->create(['name' => "Tester {$i}", 'email' => "tester{$i}@bench.test", 'password' => 'x']);
    Membership::query()->create(['project_id' => $project->id, 'user_id' => $user->id, 'role' => Role::Tester]);
    $tokens[$i] = $user->createToken('bench')->plainTextToken;
    [, $made] = ask('POST', '/api/v1/projects/BIG/charters', $tokens[$i], '{"title": "Explore"}');
    $charter = json_decode($made, true)['charter']['key'] ?? throw new RuntimeException($made);
    $sessions[$i] = (string) Str::uuid7();
    ask('POST', "/api/v1/charters/{$charter}/sessions", $tokens[$i], (string) json_encode(['id' => $sessions[$i]]));
}
$ok = true;
$bareOne = static fn(int $n): array => array_map(
    static fn(int $i): array => ['POST', '/api/v1/bench/bare', '{}', $tokens[$i % WRITERS], (string) Str::uuid7()],
    range(0, $n - 1),
);
together($bareOne(200), WRITERS);
$bare = percentile(together($bareOne(WRITERS * EACH), WRITERS), 0.95);
tell('bare JSON route with the same middleware, 40 at once, p95', $bare, 'ms', null, $json);
$writes = [];
for ($n = 0; $n < EACH; $n++) {
    foreach ($sessions as $i => $session) {
        $body = (string) json_encode(['id' => (string) Str::uuid7(), 'kind' => 'note', 'words' => "What one sees, {$n}"]);
        $writes[] = ['POST', "/api/v1/test-sessions/{$session}/lines", $body, $tokens[$i], (string) Str::uuid7()];
    }
}
$took = percentile(together($writes, WRITERS), 0.95);
tell('a line, 40 writing at once, p95', $took, 'ms', null, $json);
$ok = tell('a line, 40 writing at once, p95 to the bare route', $took / $bare, 'times', 3, $json) && $ok;
$lost = WRITERS * EACH - DB::table('session_lines')->count();
$ok = tell('lines lost or doubled', abs($lost), '', 0, $json) && $ok;

// Forty pages that are observed, each with 20 acts a second for a minute, one batch a second: as fast as they are taken.
DB::table('environments')->insert([
    'id' => (string) Str::uuid7(),
    'project_id' => $project->id,
    'name' => 'Bench',
    'address' => 'https://bench.example/',
    'notes' => '',
    'position' => 1,
    'observed' => true,
]);
$codes = [];
foreach ($sessions as $i => $session) {
    [, $paired] = ask('POST', "/api/v1/test-sessions/{$session}/observer", $tokens[$i], '{}');
    $codes[$i] = json_decode($paired, true)['code'] ?? throw new RuntimeException($paired);
}
$batches = [];
$known = DB::table('session_lines')->count();
for ($second = 0; $second < OBSERVED_SECONDS; $second++) {
    foreach ($codes as $code) {
        $acts = array_map(
            static fn(int $n): array => [
                'id' => (string) Str::uuid7(),
                'kind' => ['press', 'type', 'choose', 'tick'][$n % 4],
                'at' => (int) (microtime(true) * 1000),
                'n' => $second * 20 + $n,
                'tab' => 't',
                'page' => '/booking',
                'control' => "Field {$n}",
                'value' => 1 === $n % 4 ? "Value {$n}" : null,
            ],
            range(0, 19),
        );
        $body = (string) json_encode(['code' => $code, 'sent_at' => gmdate('c'), 'acts' => $acts]);
        $batches[] = ['POST', '/api/v1/observations', $body, '', '', ['Origin: https://bench.example']];
    }
}
$began = microtime(true);
$took = percentile(together($batches, WRITERS), 0.95);
$seconds = microtime(true) - $began;
tell('a batch of 20 acts, 40 pages at once, p95', $took, 'ms', null, $json);
$ok = tell('a batch of 20 acts, 40 pages at once, p95 to the bare route', $took / $bare, 'times', 6, $json) && $ok;
$ok = tell('a minute of 40 pages with 20 acts a second is taken in', $seconds, 's', OBSERVED_SECONDS, $json) && $ok;
$lost = WRITERS * OBSERVED_SECONDS * 20 - (DB::table('session_lines')->count() - $known);
$ok = tell('acts lost or doubled', abs($lost), '', 0, $json) && $ok;
DB::table('session_lines')->where('session_id', $sessions[0])->delete();

DB::statement(
    'insert into session_lines (id, project_id, session_id, number, kind, at_ms, done_at, words, page, tab, control, created_at) select ' .
        "gen_random_uuid(), ?, ?, 100 + n, (array['note', 'issue', 'press', 'type', 'visit'])[1 + n % 5], n * 1000, now() + n * " .
        "interval '1 second', case n % 5 when 0 then 'Seen at ' || n when 1 then 'Wrong at ' || n else '' end, '/page/' || n % 9, 'tab', " .
        "'Field ' || n % 40, now() from generate_series(1, ?) n",
    [$project->id, $sessions[0], LINES],
);
DB::connection('owner')->statement('vacuum analyze');
$p95 = static function (string $path) use ($tokens): float {
    requests(array_fill(0, 10, ['GET', $path]), $tokens[0]);

    return percentile(requests(array_fill(0, 60, ['GET', $path]), $tokens[0]), 0.95);
};
$read = $p95('/api/v1/bench/bare');
$lines = "/api/v1/test-sessions/{$sessions[0]}/lines";
tell('bare JSON route, p95', $read, 'ms', null, $json);
foreach (
    [
        'the first thousand of 5,000 lines' => $lines,
        'words in 5,000 lines' => "{$lines}?q=wrong%20499",
        'issues of 5,000 lines' => "{$lines}?kind=issue",
    ]
    as $name => $path
) {
    $took = $p95($path);
    tell("{$name}, p95", $took, 'ms', null, $json);
    $ok = tell("{$name}, p95 to the bare route", $took / $read, 'times', 12, $json) && $ok;
}

$acts = [new SessionLine('v', LineKind::Visit, 0, page: '/a', tab: 't', reached: Reached::Typed)];
for ($n = 1; $n < LINES; $n++) {
    [$kind, $page, $reached] = [
        [LineKind::Press, '/a', null],
        [LineKind::Visit, '/help', Reached::Press],
        [LineKind::Visit, '/a', Reached::Back],
        [LineKind::Press, '/a', null],
        [LineKind::Type, '/a', null],
        [LineKind::Submit, '/a', null],
    ][($n - 1) % 6];
    $acts[] = new SessionLine("l{$n}", $kind, $n, page: $page, tab: 't', reached: $reached, control: "C{$n}", value: '1');
}
$began = microtime(true);
Trimming::propose($acts);
$ok = tell('trimming 5,000 acts', (microtime(true) - $began) * 1000, 'ms', 100, $json) && $ok;
exit($ok ? 0 : 1);
