<?php

declare(strict_types=1);

// Records what the running application (./lucid start, ./lucid reset-demo) answers to readings, for the pages that are
// tested in a made-up browser: tests/Front/answers/demo.json. Ids are replaced by numbers in the order of their coming, so
// that the same demo gives the same file. Usage: php ops/record-answers.php

const PEOPLE = ['maren', 'tobias'];
/** Those who look after people, and the developer: only their first pages. */
const FEW = ['corin' => ['/projects/SKR/people', '/installation'], 'lina' => ['/projects/SKR/coverage']];
const FIRST = [
    '/session',
    '/notices',
    '/projects/SKR/charters',
    '/projects/SKR/today',
    '/projects/SKR/overview',
    '/projects/SKR/scratch',
    '/projects/SKR/walk-pack',
];
const READINGS = [
    '/session',
    '/notices',
    '/mails',
    '/projects/SKR/today',
    '/projects/SKR/overview',
    '/projects/SKR/people',
    '/projects/SKR/scratch',
    '/projects/SKR/walk-pack',
    '/projects/SKR/walk-setup',
    '/projects/SKR/cycles',
    '/projects/SKR/milestones',
    '/projects/SKR/planning-setup',
    '/projects/SKR/lists',
    '/projects/SKR/queue',
    '/projects/SKR/casebook',
    '/projects/SKR/cases',
    '/projects/SKR/cases/counts',
    '/projects/SKR/cases?bin=only',
    '/projects/SKR/case-inbox',
    '/projects/SKR/case-care',
    '/projects/SKR/routines',
    '/projects/SKR/data-tables',
    '/projects/SKR/defects',
    '/projects/SKR/defect-choices',
    '/projects/SKR/charters',
    '/projects/SKR/session-figures',
    '/projects/SKR/unexplored',
    '/projects/SKR/coverage',
    '/projects/SKR/coverage/grid',
    '/projects/SKR/coverage/grid?by=configuration',
    '/projects/SKR/coverage/trend?days=30',
    '/projects/SKR/trace?kind=requirement&id=SKR-Q6',
    '/projects/SKR/requirement-imports',
    '/requirements/SKR-Q6',
    '/charters/SKR-S1',
    '/charters/SKR-S5',
    '/cases/SKR-C13',
    '/cases/SKR-C13/needs',
    '/cases/SKR-C13/results',
    '/cases/SKR-C68',
    '/cases/SKR-C68/needs',
    '/cases/SKR-C68/history',
    '/cases/SKR-C68/comparison',
    '/cycles/SKR-R3',
    '/cycles/SKR-R3/entries',
    '/cycles/SKR-R3/trail',
    '/cycles/SKR-R3/plan',
    '/cycles/SKR-R3/log',
    '/cycles/SKR-R2/comparison?with=SKR-R1',
    '/defects/SKR-D35',
    '/defects/SKR-D35/reproduction',
    '/defects/SKR-D2',
    '/defects/SKR-D2/reproduction',
    '/projects/SKR/defects?state=needs_information&reporter=me',
];

$env = (string) file_get_contents(__DIR__ . '/../.env');
preg_match('/^APP_URL=(.+)$/m', $env, $m);
$url = $m[1] ?? 'http://127.0.0.1:8088';

/**
 * @param  array<string, string>  $body
 */
function ask(string $url, string $path, string $jar, array $body = []): string
{
    $curl = curl_init("{$url}/api/v1{$path}");
    $cookies = is_file($jar) ? (string) file_get_contents($jar) : '';
    $token = preg_match('/XSRF-TOKEN\t(\S+)/', $cookies, $m) ? urldecode($m[1]) : '';
    $post = [] === $body ? [] : [CURLOPT_POST => true, CURLOPT_POSTFIELDS => json_encode($body)];
    curl_setopt_array(
        $curl,
        $post + [
            CURLOPT_RETURNTRANSFER => true,
            CURLOPT_COOKIEJAR => $jar,
            CURLOPT_COOKIEFILE => $jar,
            CURLOPT_REFERER => $url,
            CURLOPT_HTTPHEADER => ['Accept: application/json', 'Content-Type: application/json', "X-XSRF-TOKEN: {$token}"],
        ],
    );
    $said = (string) curl_exec($curl);
    $status = curl_getinfo($curl, CURLINFO_RESPONSE_CODE);
    curl_close($curl);

    return $status < 300 ? $said : throw new RuntimeException("{$path} answered {$status}: {$said}");
}

$answers = [];
foreach ([...PEOPLE, ...array_keys(FEW)] as $person) {
    $jar = (string) tempnam(sys_get_temp_dir(), 'jar');
    $demo = json_decode(ask($url, '/welcome', $jar), true);
    $sign = array_values(array_filter($demo['sign_ins'], static fn(array $s): bool => str_starts_with($s['email'], "{$person}@")))[0];
    ask($url, '/session', $jar, ['email' => $sign['email'], 'password' => $sign['password']]);
    $of = [];
    if (isset(FEW[$person])) {
        foreach ([...FIRST, ...'corin' === $person ? ['/projects/SKR/queue'] : [], ...FEW[$person]] as $path) {
            $of[$path] = json_decode(ask($url, $path, $jar));
        }
        $answers[$person] = $of;
        unlink($jar);

        continue;
    }
    foreach (READINGS as $path) {
        if ('maren' === $person || !in_array($path, ['/projects/SKR/queue', '/mails'], true)) {
            $of[$path] = json_decode(ask($url, $path, $jar));
        }
    }
    $walked = static fn(object $e): bool => null !== $e->last_attempt_id && 'fail' === $e->display_state;
    $failed = array_values(array_filter(json_decode(ask($url, '/cycles/SKR-R2/entries', $jar))->items, $walked))[0];
    $first = ['routine' => $of['/projects/SKR/routines'][0]->id, 'table' => $of['/projects/SKR/data-tables'][0]->id];
    $attempt = $failed->last_attempt_id;
    $session = $of['/charters/SKR-S1']->charter->last->id;
    $issue = json_decode(ask($url, "/test-sessions/{$session}/lines?kind=issue", $jar))->items[0]->id;
    foreach (
        [
            "/routines/{$first['routine']}",
            "/data-tables/{$first['table']}",
            "/entries/{$failed->id}",
            "/entries/{$failed->id}/stops",
            "/attempts/{$attempt}",
            "/attempts/{$attempt}/verification",
            "/attempts/{$attempt}/record",
            "/attempts/{$attempt}/earlier",
            "/test-sessions/{$session}",
            "/test-sessions/{$session}/lines",
            "/test-sessions/{$session}/observer",
            "/test-sessions/{$session}/sheet",
            "/session-lines/{$issue}/stretch",
        ]
        as $path
    ) {
        $of[$path] = json_decode(ask($url, $path, $jar));
    }
    $answers[$person] = $of;
    unlink($jar);
}
$json = (string) json_encode($answers, JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES | JSON_PRETTY_PRINT | JSON_THROW_ON_ERROR);
$seen = [];
$json = (string) preg_replace_callback(
    '/[0-9a-f]{8}-[0-9a-f]{4}-7[0-9a-f]{3}-[0-9a-f]{4}-[0-9a-f]{12}/',
    static function (array $id) use (&$seen): string {
        $seen[$id[0]] ??= sprintf('00000000-0000-7000-8000-%012d', count($seen) + 1);

        return $seen[$id[0]];
    },
    $json,
);
file_put_contents(__DIR__ . '/../tests/Front/answers/demo.json', "{$json}\n");
echo count($seen), ' ids, ', strlen($json), " bytes\n";
