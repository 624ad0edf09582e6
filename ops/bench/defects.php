<?php

declare(strict_types=1);

// Measures defects: lists, filters, search and likely ones over 20,000 with 100,000 comments, opening one with 200 comments and 60
// pictures, moving 500 at once, and sending 1,000 calls to a tracker.

use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Defects\Tracker\DrainCalls;
use LucidStep\App\Models\Membership;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\TrackerConnection;
use LucidStep\App\Models\User;
use LucidStep\Core\Access\Role;
use LucidStep\Tests\Support\PracticeTracker;

require __DIR__ . '/support.php';

const DEFECTS = 20_000;

$json = in_array('--json', $argv, true);
$project = Project::query()
    ->create(['code' => 'BIG', 'name' => 'Big', 'policies' => []])
    ->refresh();
$me = User::query()->create(['name' => 'Tester', 'email' => 'tester@bench.test', 'password' => 'x']);
Membership::query()->create(['project_id' => $project->id, 'user_id' => $me->id, 'role' => Role::Tester]);
$token = $me->createToken('bench')->plainTextToken;
if (!$json) {
    echo "Making 20,000 defects with 100,000 comments …\n";
}
$words = ['fare', 'total', 'sailing', 'bike', 'band', 'passenger', 'payment', 'discount', 'seat', 'message', 'route', 'tide'];
$verbs = ['is wrong', 'vanishes', 'is counted twice', 'stays empty', 'comes too late', 'is cut', 'jumps back', 'is shown to others'];
$places = ['after Back', 'on a small phone', 'for an islander', 'at midnight', 'with two bikes', 'in the second round', 'once more'];
mt_srand(1);
// Words of the trade and many rare ones, the first the commonest, as texts have them.
$rare = array_map(static fn(int $n): string => 'w' . base_convert((string) ($n * 7919), 10, 36), range(1, 600));
$words = [...$words, ...$rare];
$any = static fn(array $of): string => $of[(int) floor(count($of) * (mt_rand() / mt_getrandmax()) ** 2.5 * 0.999)];
foreach (array_chunk(range(1, DEFECTS), 1000) as $some) {
    DB::table('defects')->insert(
        array_map(
            static fn(int $n): array => [
                'id' => sprintf('00000000-0000-7000-8000-%012x', $n),
                'project_id' => $project->id,
                'number' => $n,
                'key' => "BIG-D{$n}",
                'title' => "Case {$any($words)} {$n} – {$any($words)} {$any($verbs)} {$any($places)}",
                'actual' => "{$any($words)} {$any($verbs)}, {$any($words)} {$any($places)}",
                'state' => $any(['new', 'accepted', 'in_work', 'fixed', 'closed', 'verified', 'rejected']),
                'severity' => $any(['critical', 'major', 'minor', 'trivial']),
                'priority' => $any(['now', 'soon', 'later']),
                'reporter_id' => $me->id,
                'assignee_id' => 0 === $n % 3 ? $me->id : null,
                'version' => 1,
                'created_at' => '2026-11-01T08:00:00Z',
                'updated_at' => '2026-11-01T08:00:00Z',
            ],
            $some,
        ),
    );
}
DB::statement(
    'insert into defect_comments (id, project_id, defect_id, author_id, text, created_at) select gen_random_uuid(), project_id, id, ' .
        "reporter_id, 'I see the same, ' || n || ' times.', created_at from defects, generate_series(1, 5) n",
);
DB::statement(
    'insert into defect_comments (id, project_id, defect_id, author_id, text, created_at) select gen_random_uuid(), project_id, id, ' .
        "reporter_id, 'Once more, **' || n || '**.', created_at from defects, generate_series(1, 195) n where number = 7",
);
DB::table('files')->insert([
    'sha256' => str_repeat('a', 64),
    'bytes' => 1000,
    'media_type' => 'image/png',
    'width' => 900,
    'height' => 600,
    'thumbnail' => 'none',
    'created_at' => '2026-11-01T08:00:00Z',
]);
DB::statement(
    'insert into defect_files (id, project_id, defect_id, sha256, name, added_by_id, created_at) select gen_random_uuid(), project_id, ' .
        "id, repeat('a', 64), 'seen-' || n || '.png', reporter_id, created_at from defects, generate_series(1, 60) n where number = 7",
);
DB::connection('owner')->statement('vacuum analyze');

$ok = true;
$p95 = static function (string $path) use ($token): float {
    requests(array_fill(0, 10, ['GET', $path]), $token);

    return percentile(requests(array_fill(0, 80, ['GET', $path]), $token), 0.95);
};
$bare = $p95('/api/v1/bench/bare');
tell('bare JSON route, p95', $bare, 'ms', null, $json);
$list = '/api/v1/projects/BIG/defects';
$likely = '/api/v1/projects/BIG/likely-defects?title=' . rawurlencode('Fares – the total is counted twice after Back') . '&actual=';
foreach (
    [
        'list, the newest first' => $list,
        'list by severity' => "{$list}?sort=severity",
        'filter: open, critical, with me' => "{$list}?state=open&severity=critical&assignee=me",
        'search: two words' => "{$list}?q=bike%20twice",
        'search: a key' => "{$list}?q=BIG-D777",
        'likely ones, a sentence' => $likely . rawurlencode('The total of an islander is counted twice, fare stays empty'),
        'likely ones, one common word' => '/api/v1/projects/BIG/likely-defects?title=fare',
        'opening one with 200 comments and 60 pictures' => '/api/v1/defects/BIG-D7',
    ]
    as $name => $path
) {
    $took = $p95($path);
    tell("{$name}, p95", $took, 'ms', null, $json);
    // One page with everything about a defect is no list.
    $ok = tell("{$name}, p95 to the bare route", $took / $bare, 'times', str_starts_with($name, 'opening') ? 7 : 5, $json) && $ok;
}
$new = DB::table('defects')->where('state', 'new')->orderBy('number')->limit(500)->pluck('key')->implode(',');
$body = json_encode(['filter' => ['ids' => $new], 'changes' => ['state' => 'accepted', 'severity' => 'minor']], JSON_THROW_ON_ERROR);
$took = requests([['POST', '/api/v1/projects/BIG/defect-acts', $body]], $token)[0] / 1000;
$ok = tell('moving and changing 500 at once', $took, 's', 5, $json) && $ok;

$tracker = PracticeTracker::start();
TrackerConnection::query()->create([
    'project_id' => $project->id,
    'address' => $tracker->address,
    'token' => 'a-token',
    'secret' => 'x',
    'mapping' => [],
]);
DB::statement(
    'insert into tracker_calls (id, project_id, defect_id, by_id, act, payload, next_at, created_at) select gen_random_uuid(), ' .
        'project_id, id, reporter_id, act, jsonb_build_object(\'title\', title, \'body\', actual, \'severity\', severity, ' .
        "'text', title), now(), now() from defects, unnest(array['file', 'comment']) with ordinality acts (act, n) where number <= 500 " .
        'order by number, n',
);
$began = microtime(true);
try {
    $sent = app(DrainCalls::class)($project->id);
} finally {
    $tracker->stop();
}
if (1000 !== $sent) {
    throw new RuntimeException("{$sent} calls were sent.");
}
$ok = tell('sending 1,000 calls to a tracker', microtime(true) - $began, 's', 30, $json) && $ok;
exit($ok ? 0 : 1);
