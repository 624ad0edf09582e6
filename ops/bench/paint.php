<?php

declare(strict_types=1);

// Measures the walk in a browser: from a key to the next step painted, with a quick, a slow and no server; and a browser killed in between.

use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use LucidStep\App\Models\Membership;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\User;
use LucidStep\Core\Access\Role;
use LucidStep\Tests\Support\Tester;

require __DIR__ . '/support.php';
require __DIR__ . '/browser.php';

const STEPS = 40;
const KILLS = 10;

$json = in_array('--json', $argv, true);
$project = Project::query()
    ->create(['code' => 'BIG', 'name' => 'Big', 'policies' => []])
    ->refresh();
$user = User::query()->create(['name' => 'Bench', 'email' => 'bench@bench.test', 'password' => 'a bench password']);
Membership::query()->create(['project_id' => $project->id, 'user_id' => $user->id, 'role' => Role::Tester]);
$entries = entries($project->id, $user->id, 4);
$base = (string) getenv('LUCID_BENCH_URL');

measure(static function (int $port) use ($base, $entries, $json): bool {
    $ok = true;
    $me = sign(new Tester("http://127.0.0.1:{$port}", $base));
    foreach (SERVERS as $at => $with) {
        $me->open("/BIG/entries/{$entries[$at]}")
            ->click('button', 'Walk it')
            ->see('Step 1 of ' . STEPS)
            ->until('for the worker', static fn(): bool => true === $me->script('return navigator.serviceWorker.controller !== null'));
        sleep(2);
        server($me, $at);
        $took = paints($me);
        $ok = tell("key to the next step painted, {$with}, median", percentile($took, 0.5), 'ms', 50, $json) && $ok;
        $ok = tell("key to the next step painted, {$with}, p95", percentile($took, 0.95), 'ms', 50, $json) && $ok;
    }
    exec('./lucid stack bench nginx-start');
    $me->until('for everything to be sent', static fn(): bool => str_contains($me->text('header'), 'Saved'));
    $sent = (int) DB::table('events')->where('kind', 'verdict_given')->count();
    $ok = tell('verdicts lost or doubled of ' . 3 * (STEPS - 1), (float) abs($sent - 3 * (STEPS - 1)), '', 0, $json) && $ok;

    // The browser is killed while verdicts are given; what the masthead called saved must be there, and the rest is sent by the next one.
    $missing = 0;
    $given = 0;
    $me->open("/BIG/entries/{$entries[3]}")
        ->click('button', 'Walk it')
        ->see('Step 1 of ' . STEPS);
    $walk = $me->path();
    for ($kill = 0; $kill < KILLS; $kill++) {
        $me->press('1');
        $me->until('for it to be saved', static fn(): bool => str_contains($me->text('header'), 'Saved'));
        $saved = ++$given;
        $me->press('1');
        $given++;
        usleep(random_int(0, 40_000));
        $profile = $me->kill();
        $missing += max(
            0,
            $saved - (int) DB::table('events')->where('kind', 'verdict_given')->where('attempt_id', basename($walk))->count(),
        );
        $me = new Tester("http://127.0.0.1:{$port}", $base, profile: $profile);
        // A cookie that the browser had not written yet is gone as well: one signs in again, and nothing else is lost.
        $me = sign($me)
            ->open($walk)
            ->see('of ' . STEPS);
        $me->until('for what waited to be sent', static fn(): bool => str_contains($me->text('header'), 'Saved'));
        // The second may have been killed before it was written on the device: then nobody was told that it is kept.
        $given = (int) DB::table('events')->where('kind', 'verdict_given')->where('attempt_id', basename($walk))->count();
        $ok = $ok && $given >= $saved;
    }
    $ok = tell('saved verdicts missing after ' . KILLS . ' killed browsers', (float) $missing, '', 0, $json) && $ok;
    $me->leave();

    return $ok;
});

/**
 * @return list<float> milliseconds from the key to the frame that shows the next step, sorted
 */
function paints(Tester $me): array
{
    $me->script(
        <<<'JS'
        window.took = [];
        window.addEventListener('keydown', (e) => {
            const began = performance.now();
            const now = document.querySelector('.lit')?.getAttribute('aria-label');
            const look = () => {
                const then = document.querySelector('.lit')?.getAttribute('aria-label');
                if (then !== now) requestAnimationFrame(() => window.took.push(performance.now() - began));
                else if (performance.now() - began < 5000) requestAnimationFrame(look);
            };
            look();
        }, true);
        JS
        ,
    );
    for ($i = 1; $i < STEPS; $i++) {
        $me->press('1');
        $me->until('for the next step', static fn(): bool => $i === (int) $me->script('return window.took.length'));
    }
    /** @var list<float> $took */
    $took = array_map(floatval(...), (array) $me->script('return window.took'));
    sort($took);

    return $took;
}

/**
 * @return list<string> entries of STEPS steps
 */
function entries(string $project, string $person, int $count): array
{
    $made = [];
    DB::transaction(static function () use ($project, $person, $count, &$made): void {
        DB::statement('set constraints all deferred');
        $cycle = (string) Str::uuid7();
        DB::table('cycles')->insert([
            'id' => $cycle,
            'project_id' => $project,
            'number' => 1,
            'key' => 'BIG-R1',
            'name' => 'Cycle',
            'starts_on' => now(),
            'ends_on' => now()->addDays(9),
            'state' => 'released',
            'created_at' => now(),
            'updated_at' => now(),
        ]);
        for ($i = 1; $i <= $count; $i++) {
            [$case, $version, $entry] = [(string) Str::uuid7(), (string) Str::uuid7(), (string) Str::uuid7()];
            DB::table('cases')->insert([
                'id' => $case,
                'project_id' => $project,
                'number' => $i,
                'key' => "BIG-C{$i}",
                'title' => "Forty steps {$i}",
                'state' => 'approved',
                'type' => 'functional',
                'priority' => 'high',
                'priority_rank' => 2,
                'version_id' => $version,
                'position' => $i,
                'steps_count' => STEPS,
                'words' => '',
                'created_at' => now(),
                'updated_at' => now(),
            ]);
            DB::table('case_versions')->insert([
                'id' => $version,
                'case_id' => $case,
                'number' => 1,
                'title' => "Forty steps {$i}",
                'created_at' => now(),
            ]);
            DB::table('steps')->insert(
                array_map(
                    static fn(int $s): array => [
                        'id' => (string) Str::uuid7(),
                        'case_version_id' => $version,
                        'position' => $s,
                        'action' => "Do **{$s}** at the quay and look at the board",
                        'data' => "data {$s}",
                        'expected' => 'It is as it should be, and the total stands below.',
                    ],
                    range(1, STEPS),
                ),
            );
            DB::table('entries')->insert([
                'id' => $entry,
                'project_id' => $project,
                'cycle_id' => $cycle,
                'case_id' => $case,
                'case_version_id' => $version,
                'position' => $i,
                'assignee_id' => $person,
                'created_at' => now(),
                'updated_at' => now(),
            ]);
            $made[] = $entry;
        }
    });

    return $made;
}
