<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\Walk;

use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use LucidStep\App\Models\User;
use LucidStep\App\Support\StoredAnswer;
use LucidStep\Core\Access\Role;
use LucidStep\Tests\Support\FeatureTestCase;
use LucidStep\Tests\Support\Walks;

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
