<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\Walk;

use Illuminate\Database\QueryException;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use Illuminate\Testing\TestResponse;
use LucidStep\App\Models\User;
use LucidStep\App\Support\StoredAnswer;
use LucidStep\Core\Access\Role;
use LucidStep\Tests\Support\FeatureTestCase;
use LucidStep\Tests\Support\Walks;
use LucidStep\Tests\Support\World;

/**
 * Words that must not be there go from everything that was written of a case, and the trace stays.
 */
final class TakeOutTest extends FeatureTestCase
{
    use Walks;

    private const WORDS = 'Isla Fenn, born 1990, card 4711';

    private User $me;

    private User $admin;

    protected function setUp(): void
    {
        parent::setUp();
        $this->me = $this->world->person();
        $this->admin = $this->world->person('corin', Role::Admin);
    }

    public function test_a_question_is_taken_out_with_its_answer_wherever_it_stands(): void
    {
        $entry = $this->world->entry($this->me);
        $case = (string) DB::table('cases')->where('id', $entry->case_id)->value('key');
        $ask = fn(string $body, ?array $proposal = null): string => (string) $this->as(
            $this->me,
            'POST',
            "/cases/{$case}/messages",
            [
                'kind' => null === $proposal ? 'question' : 'suggestion',
                'step' => 1,
                'body' => $body,
                ...null === $proposal ? [] : ['proposal' => $proposal],
            ],
            ['Idempotency-Key' => (string) Str::uuid7()],
        )
            ->assertCreated()
            ->json('id');
        $question = $ask(self::WORDS);
        $other = $ask('Is it “' . self::WORDS . '” that is meant?', ['action' => 'Type ' . self::WORDS, 'data' => '', 'expected' => '']);
        $this->as($this->world->lead(), 'POST', "/case-messages/{$question}/answers", [
            'as' => 'answered',
            'answer' => 'Yes, she is',
        ])->assertOk();
        $this->as($this->me, 'POST', "/entries/{$entry->id}/looks", ['note' => 'Of ' . self::WORDS])->assertSuccessful();
        $path = "/case-messages/{$question}/removals";
        $this->as($this->admin, 'POST', $path, ['reason' => '-'])
            ->assertUnprocessable()
            ->assertJsonStructure(['errors' => ['reason']]);
        $this->as($this->world->lead(), 'POST', $path, ['reason' => 'A person is named'])->assertForbidden();
        $this->as($this->admin, 'POST', $path, ['reason' => 'A person is named'])
            ->assertOk()
            ->assertJsonPath('body', '(removed)')
            ->assertJsonPath('answer', '(removed)')
            ->assertJsonPath('removed_by.id', $this->admin->id)
            ->assertJsonPath('removed_reason', 'A person is named');
        self::assertSame([], $this->found(self::WORDS));
        self::assertSame([], $this->found('Yes, she is'));
        // Answers kept for repeated requests are sealed: they are opened here.
        $kept = DB::table('idempotency_keys')->whereNotNull('body')->pluck('body')->map(StoredAnswer::open(...));
        self::assertNotEmpty($kept);
        self::assertStringNotContainsString('Isla Fenn', $kept->implode(' '));
        $left = DB::table('case_messages')->where('id', $other)->first();
        self::assertSame('Is it “(removed)” that is meant?', $left?->body);
        self::assertSame('Type (removed)', json_decode((string) $left->proposal, true)['action']);
        self::assertSame(1, DB::table('removals')->where('kind', 'message')->where('subject', $question)->count());
        $this->as($this->admin, 'POST', $path, ['reason' => 'Once more'])->assertConflict();
        // One that waited for an answer waits no more.
        $lead = $this->world->lead();
        $this->as($this->admin, 'POST', "/case-messages/{$other}/removals", ['reason' => 'A person is named'])->assertOk();
        $this->as($lead, 'GET', '/projects/TST/case-inbox')->assertJsonCount(0, 'messages');
        $this->as($lead, 'POST', "/case-messages/{$other}/answers", ['as' => 'taken', 'answer' => ''])->assertConflict();
    }

    public function test_words_of_a_hand_over_and_a_look_are_taken_out(): void
    {
        $entry = $this->world->entry($this->me);
        $elsewhere = $this->world->entry($this->me);
        foreach ([$entry, $elsewhere] as $one) {
            $this->as($this->me, 'POST', "/entries/{$one->id}/looks", ['note' => 'Dark'])->assertSuccessful();
        }
        DB::table('entries')
            ->where('id', $entry->id)
            ->update(['handover_note' => self::WORDS]);
        $path = "/entries/{$entry->id}/removals";
        $this->as($this->world->lead(), 'POST', $path, ['reason' => 'A person is named'])->assertForbidden();
        $this->as($this->admin, 'POST', $path, ['reason' => 'A person is named'])
            ->assertOk()
            ->assertJsonPath('entry.handover', '(removed)')
            ->assertJsonPath('entry.look', '(removed)');
        self::assertSame([], $this->found(self::WORDS));
        self::assertSame('Dark', DB::table('entries')->where('id', $elsewhere->id)->value('look_note'), 'of another case');
        $log = $this->as($this->admin, 'GET', '/cycles/TST-R1/log')->json('0');
        self::assertStringContainsString('Took out the words', $log['text']);
        self::assertSame('A person is named', $log['reason']);
        $this->as($this->admin, 'POST', $path, ['reason' => 'Once more'])->assertConflict();
    }

    public function test_a_text_taken_out_of_a_record_goes_from_questions_and_hand_overs_too(): void
    {
        $entry = $this->world->entry($this->me);
        $case = (string) DB::table('cases')->where('id', $entry->case_id)->value('key');
        $attempt = $this->walked($entry, $this->me);
        $this->judge($this->me, $attempt, 1, 1, 'fail', ['happened' => self::WORDS]);
        $sequence = DB::table('events')->where('attempt_id', $attempt)->max('sequence');
        $this->as($this->me, 'POST', "/cases/{$case}/messages", [
            'kind' => 'question',
            'body' => 'Why ' . self::WORDS . '?',
        ])->assertCreated();
        $this->as($this->me, 'POST', "/entries/{$entry->id}/looks", ['note' => self::WORDS])->assertSuccessful();
        $this->as($this->admin, 'POST', "/attempts/{$attempt}/removals", [
            'sequence' => $sequence,
            'reason' => 'A person is named',
        ])->assertSuccessful();
        self::assertSame([], $this->found(self::WORDS));
        self::assertSame('Why (removed)?', DB::table('case_messages')->value('body'));
        $this->as($this->admin, 'GET', "/attempts/{$attempt}/verification")->assertJsonPath('state', 'open');
    }

    public function test_the_reason_of_a_retest_is_taken_out_through_the_record(): void
    {
        $entry = $this->world->entry($this->me);
        $attempt = $this->finished($entry, $this->me, 'fail');
        $this->as($this->world->lead(), 'POST', "/entries/{$entry->id}/retests", ['reason' => self::WORDS])->assertCreated();
        self::assertContains('notices', $this->found(self::WORDS));
        $events = (array) $this->as($this->admin, 'GET', "/attempts/{$attempt}/record")->json('events');
        $asked = array_values(array_filter($events, static fn(array $e): bool => 'retest_asked' === $e['kind']))[0];
        $this->as($this->admin, 'POST', "/attempts/{$attempt}/removals", [
            'sequence' => $asked['sequence'],
            'reason' => 'A person is named',
        ])->assertNoContent();
        self::assertSame([], $this->found(self::WORDS));
        self::assertSame('(removed)', DB::table('entries')->where('id', $entry->id)->value('retest_reason'));
        $this->as($this->admin, 'GET', "/attempts/{$attempt}/verification")->assertJsonPath('state', 'whole');
    }

    public function test_the_words_of_a_cycle_are_taken_out_and_its_chain_stays_proven(): void
    {
        $entry = $this->world->entry($this->me);
        $attempt = $this->finished($entry, $this->me, 'pass');
        $this->world->entry($this->me);
        $lead = $this->world->lead();
        $key = 'TST-R1';
        $send = ['Idempotency-Key' => (string) Str::uuid7()];
        $this->as($lead, 'POST', "/cycles/{$key}/sign-offs", ['note' => self::WORDS], $send)->assertSuccessful();
        $this->as($lead, 'POST', "/cycles/{$key}/moves", ['to' => 'closed', 'reason' => self::WORDS])->assertSuccessful();
        self::assertContains('cycle_events', $this->found(self::WORDS));
        $log = (array) $this->as($this->admin, 'GET', "/cycles/{$key}/log")->json();
        $line = array_values(array_filter($log, static fn(array $l): bool => 'Closed the cycle' === $l['text']))[0];
        $path = "/cycles/{$key}/log/{$line['id']}/removals";
        $this->as($lead, 'POST', $path, ['reason' => 'A person is named'])->assertForbidden();
        $this->as($this->admin, 'POST', $path, ['reason' => ' '])->assertJsonPath('errors.reason.0', 'Say why in a few words.');
        $now = (array) $this->as($this->admin, 'POST', $path, ['reason' => 'A person is named'])
            ->assertOk()
            ->json();
        self::assertSame(['Took the words out of “Closed the cycle”', 'A person is named'], [$now[0]['text'], $now[0]['reason']]);
        self::assertSame([], $this->found(self::WORDS));
        $kept = DB::table('idempotency_keys')->whereNotNull('body')->pluck('body')->map(StoredAnswer::open(...));
        self::assertStringNotContainsString('Isla Fenn', $kept->implode(' '));
        $this->as($lead, 'GET', "/cycles/{$key}/plan")->assertJsonPath('cycle.signed_off.note', '(removed)');
        $this->as($lead, 'GET', "/cycles/{$key}/verification")->assertJsonPath('state', 'whole');
        $this->as($lead, 'GET', "/attempts/{$attempt}/verification")->assertJsonPath('state', 'whole');
        $this->as($this->admin, 'POST', $path, ['reason' => 'Once more'])->assertConflict();
        $this->as($this->admin, 'POST', "/cycles/{$key}/log/1/removals", ['reason' => 'Of another cycle'])->assertNotFound();
        // Whoever takes a text out past the application is named.
        self::becomeOwner();
        DB::statement('alter table cycle_events disable trigger cycle_events_append_only');
        DB::update("update cycle_events set payload = payload - 'reason', salts = '{}' where kind = 'text_removed'");
        $this->as($lead, 'GET', "/cycles/{$key}/verification")->assertJsonPath('state', 'broken');
    }

    public function test_a_log_is_changed_in_no_other_way(): void
    {
        $this->finished($this->world->entry($this->me), $this->me, 'pass');
        $this->as($this->world->lead(), 'POST', '/cycles/TST-R1/moves', ['to' => 'abandoned', 'reason' => self::WORDS])->assertSuccessful();
        foreach (
            [
                "update cycle_log set reason = '(removed)'",
                "update cycle_log set reason = 'All well'",
                "update cycle_events set salts = '{}', payload = '{}' where salts <> '{}'",
            ]
            as $way
        ) {
            try {
                DB::transaction(static fn() => DB::update($way));
                self::fail("{$way} went through");
            } catch (QueryException $e) {
                self::assertStringContainsString('is append-only', $e->getMessage());
            }
        }
        DB::select('select lucid_remove_from_setup_log(?, ?)', [$this->world->project->id, json_encode(['Test'])]);
        self::assertSame(
            0,
            DB::table('setup_log')->whereRaw("coalesce(new, old)::text like '%(removed)%'")->count(),
            'no removal tells of it',
        );
    }

    public function test_words_of_the_setup_are_taken_out_of_its_log_once_they_stand_in_it_no_more(): void
    {
        $put = fn(string $notes): TestResponse => $this->as($this->admin, 'PUT', '/projects/TST/environments', [
            'environments' => [
                [
                    'name' => 'Staging',
                    'notes' => $notes,
                    'address' => 'https://staging.example.test',
                    'id' => DB::table('environments')->where('name', 'Staging')->value('id'),
                ],
            ],
        ])->assertSuccessful();
        $put('Sign in as ' . self::WORDS);
        $this->as($this->admin, 'POST', '/projects/TST/labels', ['names' => [self::WORDS]])->assertSuccessful();
        $log = fn(): array => (array) $this->as($this->admin, 'GET', '/projects/TST/setup-log')->json('items');
        [$label, $act] = $log();
        self::assertFalse($act['has_words']);
        $path = "/projects/TST/setup-log/{$act['id']}/removals";
        $this->as($this->world->lead(), 'POST', $path, ['reason' => 'A person is named'])->assertForbidden();
        $this->as($this->admin, 'POST', $path, ['reason' => 'A person is named'])
            ->assertConflict()
            ->assertJsonPath('detail', fn(string $d): bool => str_contains($d, 'stands in the setup now'));
        $put('Ask the desk');
        $this->as($this->admin, 'PATCH', '/projects/TST/labels', ['from' => self::WORDS, 'to' => 'ferries'])->assertSuccessful();
        self::assertSame([true, true], array_column(array_slice($log(), 2, 2), 'has_words'));
        $this->as($this->admin, 'POST', $path, ['reason' => 'A person is named'])->assertOk();
        $found = $log();
        self::assertSame([true, false, true, false], array_column(array_slice($found, 0, 4), 'has_words'));
        self::assertSame(['A person is named', $this->admin->id], [$found[3]['removed']['reason'], $found[3]['removed']['by']['id']]);
        self::assertSame('A person is named', $found[1]['removed']['reason'], 'where the same words were given up');
        self::assertStringNotContainsString('Sign in as', (string) json_encode($found));
        self::assertNotSame([], $this->found('staging.example.test'));
        $this->as($this->admin, 'POST', $path, ['reason' => 'Once more'])->assertConflict();
        $this->as($this->admin, 'POST', "/projects/TST/setup-log/{$label['id']}/removals", ['reason' => 'A person is named'])->assertOk();
        self::assertSame([], $this->found(self::WORDS));
        $other = new World('OTH');
        $elsewhere = $other->person('elsewhere', Role::Admin);
        $this->as($elsewhere, 'POST', "/projects/OTH/setup-log/{$act['id']}/removals", ['reason' => 'Not mine'])->assertNotFound();
    }

    /**
     * @return list<string> the tables in which the words stand
     */
    private function found(string $words): array
    {
        $tables = array_column(DB::select("select tablename from pg_tables where schemaname = 'public'"), 'tablename');

        return array_values(
            array_filter(
                $tables,
                static fn(string $t): bool => [] !== DB::select("select 1 from \"{$t}\" x where x::text like ? limit 1", ["%{$words}%"]),
            ),
        );
    }
}
