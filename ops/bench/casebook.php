<?php

declare(strict_types=1);

// Measures the casebook: lists and search over 100,000 cases, a case of 60 steps, and 10,000 cases in and out.

use Illuminate\Contracts\Filesystem\Filesystem;
use Illuminate\Http\UploadedFile;
use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Casebook\Exchange\ExportCases;
use LucidStep\App\Areas\Casebook\Exchange\ImportCases;
use LucidStep\App\Areas\Casebook\Exchange\ManageImport;
use LucidStep\App\Areas\Casebook\Exchange\RequestExport;
use LucidStep\App\Areas\Casebook\Queries\CaseFilter;
use LucidStep\App\Models\CaseImport;
use LucidStep\App\Models\JobState;
use LucidStep\App\Models\Membership;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\User;
use LucidStep\Core\Access\Role;

require __DIR__ . '/support.php';

const CASES = 100_000;
const EXCHANGED = 10_000;
const WORDS = [
    'booking',
    'ferry',
    'tide',
    'quay',
    'vehicle',
    'passenger',
    'refund',
    'sailing',
    'discount',
    'islander',
    'boarding',
    'code',
    'fare',
    'bike',
    'payment',
    'message',
    'keyboard',
    'label',
    'total',
    'group',
    'infant',
    'senior',
    'cancel',
    'notice',
    'queue',
    'lane',
    'deck',
    'ticket',
    'voucher',
    'gate',
];

$part = $argv[1] ?? 'run';
$json = in_array('--json', $argv, true);

if ('run' !== $part) {
    $started = microtime(true);
    match ($part) {
        'read', 'import' => bringIn($part, $argv[2]),
        'export' => takeOut($argv[2]),
        default => throw new InvalidArgumentException($part),
    };
    echo json_encode(['seconds' => microtime(true) - $started, 'mb' => memory_get_peak_usage(true) / 1_048_576]) . "\n";
    exit(0);
}

$project = Project::query()->create(['code' => 'BIG', 'name' => 'Big', 'policies' => []]);
$user = User::query()->create(['name' => 'Bench', 'email' => 'bench@bench.test', 'password' => bin2hex(random_bytes(12))]);
Membership::query()->create(['project_id' => $project->id, 'user_id' => $user->id, 'role' => Role::Lead]);
$token = $user->createToken('bench')->plainTextToken;
$small = Project::query()->create(['code' => 'OUT', 'name' => 'In and out', 'policies' => []]);
Membership::query()->create(['project_id' => $small->id, 'user_id' => $user->id, 'role' => Role::Lead]);
if (!$json) {
    echo 'Making ' . number_format(CASES) . " cases with 500,000 steps …\n";
}
seed($project->id, $user->id);

$ok = true;
$get = static fn(string $path, int $times): array => array_fill(0, $times, ['GET', $path]);
requests($get('/api/v1/bench/bare', 60), $token);
// Every worker has answered once before anything is measured, as it has after a minute of use.
requests($get('/api/v1/projects/BIG/cases', 40), $token);
$bare = percentile(requests($get('/api/v1/bench/bare', 400), $token), 0.95);
$ok = tell('bare JSON route, p95', $bare, 'ms', null, $json) && $ok;
$deep = json_decode(
    (string) file_get_contents(
        getenv('LUCID_BENCH_URL') . '/api/v1/projects/BIG/cases?sort=title',
        false,
        stream_context_create(['http' => ['header' => "Authorization: Bearer {$token}\r\nAccept: application/json"]]),
    ),
    true,
)['next'];
$folder = DB::table('folders')->where('project_id', $project->id)->value('id');
foreach (
    [
        'list, first page' => '/cases',
        'list by title, a later page' => "/cases?sort=title&after={$deep}",
        'list of a folder' => "/cases?folder={$folder}",
        'list grouped by priority' => '/cases?group=priority',
        'filter: state, priority and label' => '/cases?state=approved&priority=high&label=tide',
        'filter: never walked, by change' => '/cases?walked=never&sort=-changed',
        'search: a common word' => '/cases?q=ferry',
        'search: three words' => '/cases?q=tide+refund+quay',
        'search: half a word' => '/cases?q=passen',
        'search: a key' => '/cases?q=BIG-C5000',
        'search: nothing found' => '/cases?q=walrus',
    ]
    as $name => $path
) {
    $took = requests($get("/api/v1/projects/BIG{$path}", 120), $token);
    $ok = tell("{$name}, p95", percentile($took, 0.95), 'ms', 100, $json) && $ok;
    $ok = tell("{$name}, p95 to the bare route", percentile($took, 0.95) / $bare, 'times', 5, $json) && $ok;
}
// Asked for beside the list, which does not wait for them.
foreach (['all' => '', 'a common word' => '?q=ferry', 'by priority' => '?group=priority'] as $name => $query) {
    $took = requests($get("/api/v1/projects/BIG/cases/counts{$query}", 60), $token);
    $ok = tell("count: {$name}, p95", percentile($took, 0.95), 'ms', 150, $json) && $ok;
}
$sixty = json_encode([
    'title' => 'Sixty',
    'steps' => array_map(
        static fn(int $i): array => ['action' => "Do {$i} at the quay", 'data' => "data {$i}", 'expected' => "See {$i}"],
        range(1, 60),
    ),
]);
requests([['POST', '/api/v1/projects/OUT/cases', (string) $sixty]], $token, 1);
$took = requests($get('/api/v1/cases/OUT-C1', 120), $token);
$ok = tell('opening a case of 60 steps, p95', percentile($took, 0.95), 'ms', 100, $json) && $ok;
$ok = tell('opening a case of 60 steps, p95 to the bare route', percentile($took, 0.95) / $bare, 'times', 5, $json) && $ok;
$saves = array_map(
    static fn(int $i): array => [
        'PUT',
        '/api/v1/cases/OUT-C1',
        (string) json_encode([
            'title' => "Sixty {$i}",
            'revision' => $i,
            'steps' => array_map(static fn(int $n): array => ['action' => "Do {$n} again {$i}", 'expected' => "See {$n}"], range(1, 60)),
        ]),
    ],
    range(1, 80),
);
$took = requests($saves, $token, 1);
$ok = tell('saving a case of 60 steps, p95, one client', percentile($took, 0.95), 'ms', 120, $json) && $ok;
$ok = tell('saving a case of 60 steps, p95 to the bare route', percentile($took, 0.95) / $bare, 'times', 5, $json) && $ok;

$csv = sys_get_temp_dir() . '/lucid-bench-' . getmypid() . '.csv';
writeCsv($csv);
foreach (['read' => 'reading and checking', 'import' => 'bringing in'] as $what => $words) {
    $said = part(__FILE__, '128M', $what, $csv);
    $ok = tell("CSV of 10,000 cases, {$words}", $said['seconds'], 's', 25, $json) && $ok;
    $ok = tell("CSV of 10,000 cases, {$words}, peak", $said['mb'], 'MB', 128, $json) && $ok;
}
$said = part(__FILE__, '128M', 'export', 'csv');
$ok = tell('CSV of 10,000 cases, taking out', $said['seconds'], 's', 25, $json) && $ok;
$ok = tell('CSV of 10,000 cases, taking out, peak', $said['mb'], 'MB', 128, $json) && $ok;
foreach (['json' => '512M', 'xlsx' => '1G'] as $format => $memory) {
    $said = part(__FILE__, $memory, 'export', $format);
    $ok = tell(strtoupper($format) . ' of 10,000 cases, taking out', $said['seconds'], 's', 25, $json) && $ok;
    $ok = tell(strtoupper($format) . ' of 10,000 cases, taking out, peak', $said['mb'], 'MB', 256, $json) && $ok;
}
$said = part(__FILE__, '1G', 'read', (string) $app->make(Filesystem::class)->path('bench.xlsx'));
$ok = tell('XLSX of 10,000 cases, reading and checking', $said['seconds'], 's', 25, $json) && $ok;
$ok = tell('XLSX of 10,000 cases, reading and checking, peak', $said['mb'], 'MB', 256, $json) && $ok;
unlink($csv);
exit($ok ? 0 : 1);

function seed(string $project, string $user): void
{
    // Words as they come in texts: a few in every third case, most in few.
    $all = WORDS;
    foreach (WORDS as $a) {
        foreach (WORDS as $b) {
            $all[] = $a . $b;
            $all[] = $b . 's' . $a;
        }
    }
    $n = count($all);
    $words = "array['" . implode("','", $all) . "']";
    DB::transaction(static function () use ($project, $user, $words, $n): void {
        DB::statement('set constraints all deferred');
        DB::statement(
            "insert into folders (id, project_id, name, position) select gen_random_uuid(), ?, 'Folder ' || i, i " .
                'from generate_series(1, 200) i',
            [$project],
        );
        DB::statement(
            'create temporary table made on commit drop as select i, gen_random_uuid() as id, gen_random_uuid() as ' .
                "version, (select string_agg(w[1 + floor({$n} * random() ^ 1.5)::int + 0 * g], ' ') from " .
                "generate_series(1, 5 + 0 * i) g) as title, (select string_agg(w[1 + floor({$n} * random() ^ 1.5)::int + " .
                "0 * g], ' ') from generate_series(1, 60 + 0 * i) g) as words from generate_series(1, " .
                CASES .
                ") i, (select {$words} as w) v",
        );
        DB::statement(
            "insert into cases (id, project_id, folder_id, number, key, title, state, type, priority,
                priority_rank, owner_id, labels, version_id, position, steps_count, words, created_at, updated_at,
                last_walked_at, estimate_seconds)
            select m.id, ?, f.id, i, 'BIG-C' || i, initcap(left(title, 1)) || substr(title, 2) || ' ' || i,
                (array['draft', 'in_review', 'approved', 'approved', 'retired'])[1 + i % 5], 'functional',
                (array['critical', 'high', 'medium', 'low'])[1 + i % 4], 1 + i % 4, ?,
            case when i % 10 = 0 then '[\"tide\", \"smoke\"]' when i % 7 = 0 then '[\"tide\"]' else '[]' end::jsonb,
                version, i, 5, words, now() - make_interval(mins => i), now() - make_interval(mins => i),
                case when i % 3 = 0 then null else now() - make_interval(hours => i % 3000) end, 60 + i % 600
            from made m join (select id, row_number() over () as n from folders where project_id = ?) f on f.n = 1 + i % 200",
            [$project, $user, $project],
        );
        DB::statement('insert into case_versions (id, case_id, number, title, created_at) select version, id, 1, title, now() from made');
        DB::statement(
            'insert into steps (id, case_version_id, position, action, data, expected) select gen_random_uuid(), ' .
                "version, s, split_part(words, ' ', s) || ' the ' || split_part(words, ' ', s + 5), split_part(words, ' " .
                "', s + 10), split_part(words, ' ', s + 15) || ' is shown' from made, generate_series(1, 5) s",
        );
        DB::statement('insert into counters (project_id, kind, last) values (?, ?, ?)', [$project, 'case', CASES]);
    });
    // The application's role may not: the planner would guess.
    DB::connection('owner')->statement('vacuum analyze');
}

function writeCsv(string $path): void
{
    mt_srand(1);
    $words = static fn(int $n): string => implode(' ', array_map(static fn(): string => WORDS[mt_rand(0, 29)], range(1, $n)));
    $out = fopen($path, 'w') ?: throw new RuntimeException($path);
    fputcsv($out, ['title', 'folder', 'priority', 'labels', 'preconditions', 'action', 'data', 'expected'], ',', '"', '');
    for ($i = 1; $i <= EXCHANGED; $i++) {
        for ($s = 1; $s <= 5; $s++) {
            fputcsv(
                $out,
                [
                    1 === $s ? "Case {$i} " . $words(4) : '',
                    1 === $s ? 'Part ' . $i % 40 . ' / Inner ' . $i % 7 : '',
                    1 === $s ? 'high' : '',
                    1 === $s ? 'tide, smoke' : '',
                    1 === $s ? $words(8) : '',
                    $words(9),
                    $words(3),
                    $words(7),
                ],
                ',',
                '"',
                '',
            );
        }
    }
    fclose($out);
}

function bringIn(string $what, string $path): void
{
    $imports = app(ImportCases::class);
    $project = Project::query()->where('code', 'OUT')->firstOrFail();
    $user = User::query()->firstOrFail();
    if ('read' === $what) {
        config(['queue.default' => 'null']);
        $import = app(ManageImport::class)->upload($project, $user, new UploadedFile($path, basename($path), null, null, true));
        if (JobState::Reading === $import->state) {
            $imports->read($import);
        }
        if (
            JobState::Ready !== $import->refresh()->state ||
            EXCHANGED > $import->facts['creates'] + $import->facts['same'] + $import->facts['changes']
        ) {
            throw new RuntimeException("It was not read: {$import->problem} " . json_encode($import->facts));
        }

        return;
    }
    $import = CaseImport::query()->where('state', JobState::Ready)->orderByDesc('id')->firstOrFail();
    $import->update(['state' => JobState::Running]);
    config(['queue.default' => 'null']);
    $imports->run($import);
    if (JobState::Done !== $import->refresh()->state || DB::table('cases')->where('project_id', $project->id)->count() < EXCHANGED) {
        throw new RuntimeException("It did not come in: {$import->problem}");
    }
}

function takeOut(string $format): void
{
    $project = Project::query()->where('code', 'OUT')->firstOrFail();
    config(['queue.default' => 'null']);
    $filter = CaseFilter::from($project, ['label' => 'tide']);
    $export = app(RequestExport::class)($project, User::query()->firstOrFail(), $format, $filter, []);
    app(ExportCases::class)->run($export);
    if (JobState::Done !== $export->refresh()->state || EXCHANGED !== $export->total) {
        throw new RuntimeException("It did not go out: {$export->problem} {$export->total}");
    }
    if ('xlsx' === $format) {
        app(Filesystem::class)->copy($export->path, 'bench.xlsx');
    }
}
