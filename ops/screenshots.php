<?php

declare(strict_types=1);

// Takes the pictures in docs/screenshots from the running application (./lucid start) with the demo as it is
// freshly loaded (./lucid reset-demo). Needs chromedriver on port 9515: chromedriver --port=9515
// Usage: php ops/screenshots.php [name …]

use LucidStep\Tests\Support\Tester;

require __DIR__ . '/../vendor/autoload.php';

$env = (string) file_get_contents(__DIR__ . '/../.env');
preg_match('/^APP_URL=(.+)$/m', $env, $m);
$url = $m[1] ?? 'http://127.0.0.1:8088';
putenv('LUCID_DEMO_PASSWORD=' . (preg_match('/^LUCID_DEMO_PASSWORD=(.+)$/m', $env, $m) ? $m[1] : ''));
$only = array_slice($argv, 1);
$out = __DIR__ . '/../docs/screenshots';

$shots = [
    'today' => ['tobias', fn(Tester $t) => $t->see('Retests asked of you')],
    'today-lead' => ['maren', fn(Tester $t) => $t->see('Turned since yesterday')->see('Walking now')],
    'today-developer' => ['lina', fn(Tester $t) => $t->see('With you')],
    'session' => ['tobias', fn(Tester $t) => $t->open('/SKR/sessions/SKR-S1')->see('Debrief')->see('Exactly 24 hours')],
    'repro' => [
        'anouk',
        fn(Tester $t) => $t->open('/SKR/sessions/SKR-S2')->see('Debrief')->click('.issue a', 'What led here')->see('What came of it'),
    ],
    'coverage' => ['maren', fn(Tester $t) => $t->open('/SKR/coverage')->see('requirements proven')->press('j')->press('j')],
    'trace' => ['maren', fn(Tester $t) => $t->open('/SKR/trace/requirement/SKR-Q6')->see('SKR-D4', '.defects')->press('j')],
    'cycles' => ['maren', fn(Tester $t) => $t->open('/SKR/cycles')->see('Release 4.2')],
    'board' => ['maren', fn(Tester $t) => $t->open('/SKR/cycles/SKR-R2')->see('SKR-C13')],
    'plan' => [
        'maren',
        fn(Tester $t) => $t->open('/SKR/cycles/SKR-R2/plan')->see('Load')->click('.line', 'Paying twice')->see('Set the condition'),
    ],
    'entry' => ['maren', fn(Tester $t) => $t->open('/SKR/cycles/SKR-R2')->click('.list a', 'Going back from payment')->see('Sealed')],
    'casebook' => ['maren', fn(Tester $t) => $t->open('/SKR/casebook?group=priority&peek=SKR-C13')->see('SKR-C4')->see('Last results')],
    'case' => ['maren', fn(Tester $t) => $t->open('/SKR/casebook/SKR-C68')->see('Walked in')->see('fare', '.bar')],
    'defect' => ['lina', fn(Tester $t) => $t->open('/SKR/defects/SKR-D35')->see('History')],
    'mark-up' => [
        'tobias',
        fn(Tester $t) => $t
            ->see('Retests')
            ->click('.cycle .title', 'discount with a bike')
            ->see('Step 4 of')
            ->click('.tray .acts .link', 'Draw or hide')
            ->see('Hide', '.mark')
            ->drag(0.12, 0.5, 0.34, 0.3),
    ],
    'handset' => [
        'tobias',
        fn(Tester $t) => $t
            ->see('Retests')
            ->open('/SKR/cycles/SKR-R3')
            ->click('.list a', 'The fare of a vehicle')
            ->click('button', 'Go on')
            ->see('Round 3 of 5')
            ->press('j', 'j')
            ->click('.tools .link', 'Handset')
            ->see('Capture it'),
    ],
    'walk' => [
        'tobias',
        fn(Tester $t) => $t->see('Retests')->click('.cycle .title', 'discount with a bike')->see('Step 4 of')->press('k')->see('Step 3 of'),
    ],
    'walk-fail' => [
        'tobias',
        fn(Tester $t) => $t
            ->see('Retests')
            ->click('.cycle .title', 'discount with a bike')
            ->see('Step 4 of')
            ->press('2', 'The bike is discounted as well: total 9.24.')
            ->pastePicture()
            ->see('Saved', '.tray figcaption'),
    ],
    'walk-phone' => ['tobias', fn(Tester $t) => $t->see('Retests')->click('.cycle .title', 'discount with a bike')->see('Step '), 390, 844],
];
foreach ($shots as $name => $shot) {
    if ($only !== [] && !in_array($name, $only, true)) {
        continue;
    }
    $tester = new Tester('http://127.0.0.1:9515', $url, $shot[2] ?? 1280, $shot[3] ?? 800, $shot[4] ?? false);
    try {
        if ($shot[0] !== null) {
            $tester->signIn($shot[0]);
        }
        $shot[1]($tester);
        usleep(900_000);
        $tester->picture("{$out}/{$name}.png");
        echo "{$name}\n";
    } catch (Throwable $e) {
        echo "{$name}: ", substr($e->getMessage(), 0, 300), "\n";
    } finally {
        $tester->leave();
    }
}
