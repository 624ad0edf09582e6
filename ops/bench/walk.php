<?php

declare(strict_types=1);

// Measures the walk: recording verdicts by 40 testers at once over 1,000,000 step results, opening large attempts, and
// processes killed in between.

use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use LucidStep\App\Models\Membership;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\User;
use LucidStep\Core\Access\Role;

require __DIR__ . '/support.php';
require __DIR__ . '/clients.php';
require __DIR__ . '/walk-data.php';

const ATTEMPTS = 50_000;
const TESTERS = 40;
const VERDICTS = 30;
const KILLS = 50;

$json = in_array('--json', $argv, true);
$project = Project::query()
    ->create(['code' => 'BIG', 'name' => 'Big', 'policies' => []])
    ->refresh();
$people = $tokens = [];
for ($i = 0; $i < TESTERS; $i++) {
    $people[$i] = User::query()->create(['name' => "Tester {$i}", 'email' => "tester{$i}@bench.test", 'password' => 'x']);
    Membership::query()->create(['project_id' => $project->id, 'user_id' => $people[$i]->id, 'role' => Role::Tester]);
    $tokens[$i] = $people[$i]->createToken('bench')->plainTextToken;
}
if (!$json) {
    echo 'Making ' . number_format(ATTEMPTS * 20) . " step results in 50,000 attempts …\n";
}
$entries = seed($project->id, array_map(static fn(User $u): string => $u->id, $people));
$ok = true;

// Every tester opens an entry of VERDICTS steps.
$attempts = [];
foreach ($entries as $i => $entry) {
    [, $answer] = ask('POST', "/api/v1/entries/{$entry}/attempts", $tokens[$i], '{}');
    $attempts[$i] = json_decode($answer, true)['attempt']['id'] ?? throw new RuntimeException($answer);
}
$bareOne = static fn(int $n): array => array_map(
    static fn(int $i): array => ['POST', '/api/v1/bench/bare', '{}', $tokens[$i % TESTERS], (string) Str::uuid7()],
    range(0, $n - 1),
);
together($bareOne(200), TESTERS);
$bare = together($bareOne(TESTERS * VERDICTS), TESTERS);
tell('bare JSON route with the same middleware, 40 at once, p95', percentile($bare, 0.95), 'ms', null, $json);
$verdicts = [];
for ($step = 1; $step <= VERDICTS; $step++) {
    foreach ($attempts as $i => $attempt) {
        $verdicts[] = [
            'POST',
            "/api/v1/attempts/{$attempt}/verdicts",
            (string) json_encode([
                'round' => 1,
                'step' => $step,
                'verdict' => 0 === $step % 7 ? 'fail' : 'pass',
                'happened' => 'It is not as it should be.',
                'active_ms' => 21_000,
            ]),
            $tokens[$i],
            (string) Str::uuid7(),
        ];
    }
}
$took = together($verdicts, TESTERS);
$ok = tell('recording a verdict, 40 at once, p50', percentile($took, 0.5), 'ms', 150, $json) && $ok;
$ok = tell('recording a verdict, 40 at once, p95', percentile($took, 0.95), 'ms', 300, $json) && $ok;
$ok =
    tell(
        'recording a verdict, 40 at once, p95 to the bare route',
        percentile($took, 0.95) / percentile($bare, 0.95),
        'times',
        2.5,
        $json,
    ) && $ok;
// Once more, as a device does that heard no answer: nothing may be doubled.
together(array_slice($verdicts, 0, 400), TESTERS);
$counted = (int) DB::table('events')->whereIn('attempt_id', $attempts)->where('kind', 'verdict_given')->count();
$ok =
    tell(
        'verdicts lost or doubled of 1,200',
        (float) abs(TESTERS * VERDICTS - $counted) +
            DB::table('step_results')
                ->join('rounds', 'rounds.id', '=', 'round_id')
                ->whereIn('attempt_id', $attempts)
                ->where('verdict', 'not_run')
                ->count(),
        '',
        0,
        $json,
    ) && $ok;
$commit = commits($attempts[0], $people[0]->id);
tell("PostgreSQL's own commit of the same rows, median", percentile($commit, 0.5), 'ms', null, $json);
$one = together(
    array_map(
        static fn(int $n): array => [
            'POST',
            "/api/v1/attempts/{$attempts[1]}/verdicts",
            (string) json_encode(['round' => 1, 'step' => 1 + ($n % VERDICTS), 'verdict' => 'pass']),
            $tokens[1],
            (string) Str::uuid7(),
        ],
        range(0, 99),
    ),
    1,
);
$ok = tell('recording a verdict, one client, median', percentile($one, 0.5), 'ms', 40, $json) && $ok;
$ok =
    tell(
        "recording a verdict, one client, to PostgreSQL's own commit",
        percentile($one, 0.5) / percentile($commit, 0.5),
        'times',
        10,
        $json,
    ) && $ok;

$large = large($project->id, $people[0]->id);
[, $answer] = ask('POST', "/api/v1/entries/{$large}/attempts", $tokens[0], '{}');
$big = json_decode($answer, true)['attempt']['id'] ?? throw new RuntimeException($answer);
$open = requests(array_fill(0, 60, ['GET', "/api/v1/attempts/{$big}"]), $tokens[0], 4);
$get = requests(array_fill(0, 200, ['GET', '/api/v1/bench/bare']), $tokens[0], 4);
$ok = tell('opening an entry of 60 steps and 12 rounds, median', percentile($open, 0.5), 'ms', 150, $json) && $ok;
$ok =
    tell(
        'opening an entry of 60 steps and 12 rounds, to the bare route',
        percentile($open, 0.5) / percentile($get, 0.5),
        'times',
        6,
        $json,
    ) && $ok;

[$saved, $lost] = kills($big, $tokens[0], $json);
tell('verdicts called saved while ' . KILLS . ' processes were killed', (float) $saved, '', null, $json);
$ok = tell('of those lost or doubled', (float) $lost, '', 0, $json) && $ok;
exit($ok ? 0 : 1);

/**
 * The rows that recording a verdict writes, written by PostgreSQL alone, one transaction each.
 *
 * @return list<float> milliseconds, sorted
 */
function commits(string $attempt, string $user): array
{
    $pdo = DB::connection()->getPdo();
    $result = DB::table('step_results')
        ->join('rounds', 'rounds.id', '=', 'round_id')
        ->where('attempt_id', $attempt)
        ->value('step_results.id');
    $entry = DB::table('attempts')->where('id', $attempt)->value('entry_id');
    $project = DB::table('attempts')->where('id', $attempt)->value('project_id');
    $took = [];
    for ($i = 0; $i < 200; $i++) {
        $began = hrtime(true);
        $pdo->beginTransaction();
        $pdo->prepare('insert into idempotency_keys (key, user_id, fingerprint, status, created_at) values (?, ?, ?, 200, now())')->execute(
            [(string) Str::uuid7(), $user, str_repeat('a', 64)],
        );
        $pdo->prepare("update step_results set verdict = 'pass', active_ms = active_ms + 1, judged_at = now() where id = ?")->execute([
            $result,
        ]);
        $pdo->prepare(
            'insert into events (attempt_id, sequence, kind, actor_id, server_time, payload, evidence, bytes, hash) ' .
                'values (?, ?, ?, ?, 1, ?, ?, ?, ?)',
        )->execute([
            $attempt,
            100_000 + $i,
            'verdict_given',
            $user,
            '{"round": 1, "step": 1}',
            '[]',
            str_repeat('x', 300),
            str_repeat('b', 64),
        ]);
        $pdo->prepare('update attempts set active_ms = active_ms + 1 where id = ?')->execute([$attempt]);
        $pdo->prepare('update entries set active_ms = active_ms + 1 where id = ?')->execute([$entry]);
        $pdo->prepare('insert into changes (project_id, topic, subject_id) values (?, ?, ?)')->execute([$project, 'entry', $entry]);
        $pdo->commit();
        $took[] = (hrtime(true) - $began) / 1e6;
    }
    sort($took);

    return $took;
}

/**
 * Kills php-fpm and PostgreSQL in the middle of recording, again and again, and records on as a device does: the same act
 * with the same key until it is answered.
 *
 * @return array{int, int} how many were called saved, and how many of those are missing or there twice
 */
function kills(string $attempt, string $token, bool $json): array
{
    if (!$json) {
        echo 'Killing php-fpm and PostgreSQL ' . KILLS . " times while verdicts are recorded …\n";
    }
    $saved = [];
    $act = 0;
    for ($kill = 0; $kill < KILLS; $kill++) {
        $what = 0 === $kill % 5 ? 'postgres' : 'fpm';
        // In the middle: the killer strikes while requests are on their way.
        $killer =
            proc_open(
                ['bash', '-c', 'sleep 0.' . random_int(10, 60) . "; bash ops/bench/kill.sh {$what}"],
                [['file', '/dev/null', 'r'], ['file', '/dev/null', 'w'], ['file', '/dev/null', 'w']],
                $pipes,
            ) ?:
            throw new RuntimeException('The killer does not start.');
        do {
            [$round, $step] = [1 + (intdiv($act, 60) % 12), 1 + ($act % 60)];
            $key = (string) Str::uuid7();
            $body = (string) json_encode(['round' => $round, 'step' => $step, 'verdict' => 'pass', 'counter' => $act]);
            $give = microtime(true) + 60;
            do {
                [$status, $answer] = ask('POST', "/api/v1/attempts/{$attempt}/verdicts", $token, $body, $key);
                if (200 === $status) {
                    $saved[] = $act;
                } elseif (microtime(true) > $give) {
                    throw new RuntimeException("Nobody answers any more: {$status} {$answer}");
                } else {
                    usleep(50_000);
                }
            } while (200 !== $status);
            $act++;
        } while (proc_get_status($killer)['running']);
        proc_close($killer);
    }
    DB::reconnect();
    $there = DB::table('events')->where('attempt_id', $attempt)->where('kind', 'verdict_given')->pluck('counter')->countBy()->all();

    return [count($saved), count(array_filter($saved, static fn(int $n): bool => 1 !== ($there[$n] ?? 0)))];
}
