<?php

declare(strict_types=1);

// Measures a session in a browser: from Enter to the line painted, with a quick, a slow and no server; and that every line arrives once.

use Illuminate\Support\Facades\DB;
use LucidStep\App\Models\Membership;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\User;
use LucidStep\Core\Access\Role;
use LucidStep\Tests\Support\Tester;

require __DIR__ . '/support.php';
require __DIR__ . '/browser.php';

const LINES = 40;

$json = in_array('--json', $argv, true);
$project = Project::query()
    ->create(['code' => 'BIG', 'name' => 'Big', 'policies' => []])
    ->refresh();
$user = User::query()->create(['name' => 'Bench', 'email' => 'bench@bench.test', 'password' => 'a bench password']);
Membership::query()->create(['project_id' => $project->id, 'user_id' => $user->id, 'role' => Role::Tester]);

measure(static function (int $port) use ($json): bool {
    $ok = true;
    $me = sign(new Tester("http://127.0.0.1:{$port}", (string) getenv('LUCID_BENCH_URL')));
    $me->open('/BIG/sessions/new')->type('#charter-title', 'Explore')->click('button', 'Start now')->waitFor('#line');
    foreach (SERVERS as $at => $with) {
        server($me, $at);
        $took = lines($me, $at);
        $ok = tell("Enter to the line painted, {$with}, median", percentile($took, 0.5), 'ms', 50, $json) && $ok;
        $ok = tell("Enter to the line painted, {$with}, p95", percentile($took, 0.95), 'ms', 50, $json) && $ok;
    }
    exec('./lucid stack bench nginx-start');
    $me->until('for everything to be sent', static fn(): bool => str_contains($me->text('header'), 'Saved'));
    $lost = 3 * LINES - DB::table('session_lines')->count();
    $ok = tell('lines lost or doubled of ' . 3 * LINES, (float) abs($lost), '', 0, $json) && $ok;
    $me->leave();

    return $ok;
});

/**
 * @return list<float> milliseconds from Enter to the frame that shows the line, sorted
 */
function lines(Tester $me, int $turn): array
{
    $me->script(
        <<<'JS'
        const known = window.took;
        window.took = [];
        if (!known) window.addEventListener('keydown', (e) => {
            if (e.key !== 'Enter') return;
            const began = performance.now();
            const words = document.querySelector('#line').value.trim();
            const look = () => {
                if (document.querySelector('[aria-label=Timeline]').textContent.includes(words))
                    requestAnimationFrame(() => window.took.push(performance.now() - began));
                else requestAnimationFrame(look);
            };
            requestAnimationFrame(look);
        }, { capture: true });
        JS
        ,
    );
    for ($n = 0; $n < LINES; ++$n) {
        $me->click('#line')->press("Seen {$turn}-{$n}.", "\u{E007}");
        $me->until('for the line', static fn(): bool => $n < (int) $me->script('return window.took.length'));
    }
    $took = array_map(floatval(...), (array) $me->script('return window.took'));
    sort($took);

    return array_values(array_slice($took, 0, LINES));
}
