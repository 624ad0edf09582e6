<?php

declare(strict_types=1);

namespace LucidStep\Tests\Browser;

use LucidStep\Tests\Support\BrowserTestCase;

/**
 * Requests that arrive at the same moment, through the whole stack.
 */
final class RaceTest extends BrowserTestCase
{
    private string $token;

    protected function setUp(): void
    {
        parent::setUp();
        $this->token = bin2hex(random_bytes(20));
        $this->value(
            'insert into personal_access_tokens (tokenable_type, tokenable_id, name, token, abilities, created_at, ' .
                "updated_at) select 'LucidStep\\App\\Models\\User', id, 'race', ?, '[\"*\"]', now(), now() from users " .
                "where email = 'tobias@skerrywick.test'",
            [hash('sha256', $this->token)],
        );
    }

    public function test_one_key_sent_eight_times_at_once_records_once(): void
    {
        $attempt = $this->attempt();
        $key = '0190f0aa-0000-7000-8000-0000000000aa';
        $body = ['round' => 1, 'step' => 5, 'verdict' => 'pass', 'active_ms' => 1000];
        $answers = $this->atOnce(array_fill(0, 8, ["/attempts/{$attempt}/verdicts", $body, $key]));
        self::assertSame(array_fill(0, 8, 200), array_column($answers, 0));
        self::assertSame(1, count(array_unique(array_column($answers, 1))));
        self::assertSame(1, $this->value("select count(*) from events where attempt_id = ? and payload->>'step' = '5'", [$attempt]));
    }

    public function test_many_verdicts_at_once_are_all_there_in_one_unbroken_chain(): void
    {
        $attempt = $this->attempt();
        $before = $this->value('select sequence from attempts where id = ?', [$attempt]);
        $requests = [];
        for ($i = 0; $i < 24; $i++) {
            $requests[] = [
                "/attempts/{$attempt}/verdicts",
                ['round' => 1, 'step' => 1 + ($i % 5), 'verdict' => ['pass', 'not_applicable', 'not_run'][$i % 3]],
                sprintf('0190f0aa-0000-7000-8000-%012d', $i),
            ];
        }
        self::assertSame(array_fill(0, 24, 200), array_column($this->atOnce($requests), 0));
        self::assertSame($before + 24, $this->value('select max(sequence) from events where attempt_id = ?', [$attempt]));
        self::assertSame($before + 24, $this->value('select count(*) from events where attempt_id = ?', [$attempt]));
        $check = json_decode($this->get("/attempts/{$attempt}/verification"), true);
        self::assertSame(['open', $before + 24], [$check['state'], $check['events']]);
    }

    public function test_an_entry_started_six_times_at_once_has_one_open_attempt(): void
    {
        $entry = $this->value(
            'select e.id from entries e join cases c on c.id = e.case_id join cycles y on y.id = e.cycle_id where ' .
                "c.key = 'SKR-C19' and y.key = 'SKR-R2'",
        );
        $answers = $this->atOnce(array_fill(0, 6, ["/entries/{$entry}/attempts", [], null]));
        self::assertSame(array_fill(0, 6, 201), array_column($answers, 0));
        self::assertSame(1, $this->value('select count(*) from attempts where entry_id = ?', [$entry]));
    }

    public function test_attempts_of_one_case_finished_at_once_are_all_kept_for_coverage(): void
    {
        $attempts = [];
        for ($i = 0; $i < 8; $i++) {
            $entry = $this->value(
                <<<'SQL'
                insert into entries (id, project_id, cycle_id, case_id, case_version_id, position, assignee_id, rounds, configuration_id,
                    created_at, updated_at)
                select gen_random_uuid(), y.project_id, y.id, c.id, c.version_id, 900 + ?, u.id, 1, (select f.id from configurations f
                    where f.project_id = y.project_id order by position offset ? limit 1), now(), now()
                from cycles y cross join cases c cross join users u
                where y.key = 'SKR-R2' and c.key = 'SKR-C58' and u.email = 'tobias@skerrywick.test' returning id
                SQL
                ,
                [$i, $i % 3],
            );
            [[$status, $answer]] = $this->atOnce([["/entries/{$entry}/attempts", [], null]]);
            self::assertSame(201, $status);
            $attempts[] = json_decode($answer, true)['attempt']['id'];
        }
        $ends = [];
        foreach ($attempts as $attempt) {
            $ends[] = ["/attempts/{$attempt}/finish", ['verdict' => 'pass', 'note' => 'All of it was seen'], null];
        }
        $first = $this->atOnce(array_slice($ends, 0, 3));
        $then = $this->atOnce(array_slice($ends, 3));
        self::assertSame(array_fill(0, 8, 200), array_column([...$first, ...$then], 0));
        $cells = "select count(*) from coverage_cells l join cases c on c.id = l.case_id where c.key = 'SKR-C58' and l.state = 'pass'";
        self::assertSame(3, $this->value($cells), 'one for each configuration');
    }

    public function test_defects_filed_at_once_have_keys_of_their_own(): void
    {
        $answers = $this->atOnce(
            array_map(static fn(int $i): array => ['/projects/SKR/defects', ['title' => "Fault {$i}"], null], range(1, 8)),
        );
        $keys = array_map(static fn(array $a): string => json_decode($a[1], true)['defect']['key'], $answers);
        sort($keys, SORT_NATURAL);
        self::assertSame(['SKR-D43', 'SKR-D44', 'SKR-D45', 'SKR-D46', 'SKR-D47', 'SKR-D48', 'SKR-D49', 'SKR-D50'], $keys);
    }

    public function test_somebody_invited_eight_times_at_once_is_invited_once_and_joins_once(): void
    {
        $this->value("update memberships set role = 'admin' where user_id = (select id from users where email = 'tobias@skerrywick.test')");
        $text = implode("\n", array_map(static fn(int $i): string => "race{$i}@bakery.test", range(1, 20)));
        $answers = $this->atOnce(array_fill(0, 8, ['/projects/SKR/invitations', ['text' => $text, 'role' => 'tester'], null]));
        self::assertSame(array_fill(0, 8, 201), array_column($answers, 0));
        self::assertSame(20, $this->value("select count(*) from invitations where email like 'race%'"));
        $invitation = (string) $this->value("select id from invitations where email = 'race1@bakery.test'");
        $address = $this->atOnce([["/invitations/{$invitation}/addresses", [], null]])[0][1];
        $token = explode('#', (string) json_decode($address, true)['address'])[1];
        $this->token = 'nobody';
        $join = ['token' => $token, 'name' => 'Race One', 'password' => 'four lanterns on the quay'];
        $statuses = array_column($this->atOnce(array_fill(0, 6, ['/invitation-acceptances', $join, null])), 0);
        self::assertContains(200, $statuses);
        self::assertSame([], array_diff($statuses, [200, 409]));
        self::assertSame(1, $this->value("select count(*) from users where email = 'race1@bakery.test'"));
        self::assertSame(
            1,
            $this->value("select count(*) from memberships m join users u on u.id = m.user_id where u.email = 'race1@bakery.test'"),
        );
    }

    public function test_two_admins_who_leave_at_once_do_not_both_go(): void
    {
        $this->value("update memberships set role = 'admin' where user_id = (select id from users where email = 'tobias@skerrywick.test')");
        $ids = array_map(
            fn(string $name): string => (string) $this->value("select id from users where email = '{$name}@skerrywick.test'"),
            ['corin', 'tobias'],
        );
        $go = static fn(string $id): array => ["/projects/SKR/people/{$id}/departures", ['to' => null], null];
        $this->atOnce(array_map($go, [...$ids, ...$ids]));
        self::assertSame(
            1,
            $this->value(
                "select count(*) from memberships m join projects p on p.id = m.project_id where p.code = 'SKR' and role = 'admin'",
            ),
        );
    }

    private function attempt(): string
    {
        return (string) $this->value(
            'select a.id from attempts a join users u on u.id = a.tester_id join entries e on e.id = a.entry_id join ' .
                "cases c on c.id = e.case_id where a.state = 'open' and u.email = 'tobias@skerrywick.test' and c.key = 'SKR-C17'",
        );
    }

    private function get(string $path): string
    {
        return (string) file_get_contents(
            getenv('LUCID_TEST_URL') . "/api/v1{$path}",
            false,
            stream_context_create(['http' => ['header' => "Authorization: Bearer {$this->token}\r\nAccept: application/json"]]),
        );
    }

    /**
     * @param  list<array{string, array<string, mixed>, ?string}>  $requests  path, body and key
     * @return list<array{int, string}> status and body
     */
    private function atOnce(array $requests): array
    {
        $multi = curl_multi_init();
        $handles = [];
        foreach ($requests as [$path, $body, $key]) {
            $handle = curl_init(getenv('LUCID_TEST_URL') . "/api/v1{$path}");
            curl_setopt_array($handle, [
                CURLOPT_POST => true,
                CURLOPT_POSTFIELDS => json_encode((object) $body, JSON_THROW_ON_ERROR),
                CURLOPT_RETURNTRANSFER => true,
                CURLOPT_TIMEOUT => 30,
                CURLOPT_HTTPHEADER => [
                    "Authorization: Bearer {$this->token}",
                    'Accept: application/json',
                    'Content-Type: application/json',
                    ...$key === null ? [] : ["Idempotency-Key: {$key}"],
                ],
            ]);
            curl_multi_add_handle($multi, $handle);
            $handles[] = $handle;
        }
        do {
            curl_multi_exec($multi, $running);
            curl_multi_select($multi, 0.1);
        } while ($running > 0);

        return array_map(
            static fn(\CurlHandle $h): array => [(int) curl_getinfo($h, CURLINFO_HTTP_CODE), (string) curl_multi_getcontent($h)],
            $handles,
        );
    }
}
