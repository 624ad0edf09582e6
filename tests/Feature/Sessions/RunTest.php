<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\Sessions;

use Illuminate\Http\UploadedFile;
use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use Illuminate\Testing\TestResponse;
use LucidStep\App\Models\TestSession;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Record\SessionJournal;
use LucidStep\Core\Access\Role;
use LucidStep\Tests\Support\FeatureTestCase;
use LucidStep\Tests\Support\Walks;

/**
 * A charter is written, explored in a session, debriefed and signed off; its clock, its timeline and its record.
 */
final class RunTest extends FeatureTestCase
{
    use Walks;

    private User $me;

    private User $lead;

    protected function setUp(): void
    {
        parent::setUp();
        $this->me = $this->world->person('tess');
        $this->lead = $this->world->lead();
        Carbon::setTestNow('2026-11-30 10:00:00');
    }

    public function test_a_lead_writes_for_anybody_a_tester_for_themselves_and_two_who_change_the_same_see_each_other(): void
    {
        $other = $this->world->person('otto');
        $this->charter($this->me, ['assignee_id' => $other->id])->assertForbidden();
        $this->charter($this->me, ['title' => ''])
            ->assertUnprocessable()
            ->assertJsonPath('errors.title.0', 'Say what is to be explored.');
        $this->charter($this->me, ['box_minutes' => 0])
            ->assertUnprocessable()
            ->assertJsonStructure(['errors' => ['box_minutes']]);
        $reader = $this->world->person('ada', Role::Reader);
        $this->charter($this->lead, ['assignee_id' => $reader->id])
            ->assertUnprocessable()
            ->assertJsonStructure(['errors' => ['assignee_id']]);
        $this->charter($this->lead, ['folder_id' => (string) Str::uuid7()])
            ->assertUnprocessable()
            ->assertJsonStructure(['errors' => ['folder_id']]);
        $made = $this->charter($this->lead, ['assignee_id' => $other->id, 'label' => 'money', 'risk' => 'Trust'])->assertCreated();
        $made->assertJson([
            'charter' => ['key' => 'TST-S1', 'state' => 'waiting', 'area_kind' => 'label', 'area' => 'money', 'version' => 1],
        ]);

        self::assertSame(
            ['Lead asks you to explore TST-S1: Refunds near 48 hours'],
            DB::table('notices')->where('user_id', $other->id)->pluck('text')->all(),
        );
        $put = fn(User $by, string $title, int $version) => $this->as($by, 'PUT', '/charters/TST-S1', [
            'title' => $title,
            'version' => $version,
        ]);
        $put($this->me, 'Mine now', 1)->assertForbidden();
        $put($this->lead, 'Refunds at the edge', 1)->assertOk()->assertJsonPath('charter.version', 2);
        $put($this->lead, 'Another', 1)->assertStatus(412)->assertJsonPath('version', 2);
        $this->as($this->lead, 'DELETE', '/charters/TST-S1')->assertOk()->assertJsonPath('charter.state', 'dropped');
        $this->start('TST-S1')->assertConflict()->assertJsonPath('type', 'urn:lucid-step:problem:charter-dropped');
        $this->as($this->lead, 'POST', '/charters/TST-S1/restorations')->assertOk()->assertJsonPath('charter.state', 'waiting');
    }

    public function test_the_clock_leaves_pauses_out_and_what_was_done_without_the_server_counts_from_when_it_was_done(): void
    {
        $this->charter($this->me)->assertCreated();
        $id = (string) Str::uuid7();
        foreach ([1, 2] as $_) {
            // Started twice, since an answer was lost: once.
            $this->start('TST-S1', $id)
                ->assertCreated()
                ->assertJson(['number' => 1, 'state' => 'running', 'mine' => true]);
        }
        // The server was away for half an hour: the device sends what was done meanwhile.
        Carbon::setTestNow('2026-11-30 10:30:00');
        $at = static fn(string $time, int $counter): array => [
            'device_time' => "2026-11-30T{$time}Z",
            'sent_at' => '2026-11-30T10:30:00Z',
            'counter' => $counter,
        ];
        $line = $this->line($id, 'issue', '48:00 gives half', $at('10:05:00', 1))->assertCreated();
        self::assertSame(300_000, $line->json('at_ms'));
        $this->send_($id, 'switches', ['to' => 'opportunity', ...$at('10:10:00', 2)])->assertOk();
        $this->send_($id, 'moves', ['to' => 'paused', ...$at('10:20:00', 3)])->assertOk();
        $this->send_($id, 'moves', ['to' => 'running', ...$at('10:25:00', 4)])->assertOk();
        $now = $this->as($this->me, 'GET', "/test-sessions/{$id}")->assertOk();
        $now->assertJson([
            'active_ms' => 25 * 60_000,
            'focus' => 'opportunity',
            'shares' => ['charter' => 600_000, 'opportunity' => 900_000, 'testing' => 1_500_000],
            'counts' => ['issue' => 1],
        ]);
        $this->as($this->me, 'PUT', "/test-sessions/{$id}/box", ['minutes' => 90])
            ->assertOk()
            ->assertJsonPath('box_ms', 5_400_000);
        $this->send_($id, 'moves', ['to' => 'stopped'])
            ->assertOk()
            ->assertJsonPath('state', 'stopped');
        $this->send_($id, 'moves', ['to' => 'running'])
            ->assertConflict()
            ->assertJsonPath('type', 'urn:lucid-step:problem:session-over');

        // Time is moved within a split, and never more than there is.
        $this->send_($id, 'time-moves', ['from' => 'opportunity', 'to' => 'charter', 'ms' => 100_000])
            ->assertOk()
            ->assertJsonPath('shares.charter', 700_000);
        $this->send_($id, 'time-moves', ['from' => 'opportunity', 'to' => 'charter', 'ms' => 900_000])
            ->assertUnprocessable()
            ->assertJsonPath('errors.ms.0', 'There is not so much time to move.');
        // What was written in time arrives late, and takes its place.
        $this->line($id, 'note', 'On the tablet', $at('10:04:00', 9))->assertCreated()->assertJsonPath('at_ms', 240_000);
        self::assertSame(['On the tablet', '48:00 gives half'], $this->words($id));
        self::assertSame('whole', $this->verify($id));
    }

    public function test_one_person_explores_one_thing_at_a_time_and_only_theirs(): void
    {
        $this->charter($this->me)->assertCreated();
        $this->charter($this->me, ['title' => 'Another'])->assertCreated();
        [$one, $two] = [(string) Str::uuid7(), (string) Str::uuid7()];
        $this->start('TST-S1', $one)->assertCreated();
        $this->travelTo('2026-11-30 10:10:00');
        $this->start('TST-S2', $two)->assertCreated();
        $this->as($this->me, 'GET', "/test-sessions/{$one}")->assertJson(['state' => 'paused', 'active_ms' => 600_000]);
        $other = $this->world->person('otto');
        $this->as($other, 'POST', "/test-sessions/{$two}/moves", ['to' => 'stopped'])
            ->assertConflict()
            ->assertJson(['type' => 'urn:lucid-step:problem:session-of-another', 'tester' => 'Tess']);
        $this->start('TST-S2', $one)->assertConflict();
        $list = $this->as($this->lead, 'GET', '/projects/TST/charters')->assertOk();
        self::assertSame(['TST-S2', 'TST-S1'], array_column((array) $list->json(), 'key'));
        self::assertSame([2 => 'running'], [2 => $list->json('0.last.state')]);
    }

    public function test_lines_are_written_once_mended_with_their_former_words_pinned_found_and_taken_out(): void
    {
        $this->charter($this->me)->assertCreated();
        $session = (string) Str::uuid7();
        $this->start('TST-S1', $session)->assertCreated();
        $id = (string) Str::uuid7();
        foreach ([1, 2] as $_) {
            $this->line($session, 'question', 'Größe of the **car**?', ['id' => $id])->assertCreated();
        }
        $this->line($session, 'note', '  ')
            ->assertUnprocessable()
            ->assertJsonStructure(['errors' => ['words']]);
        $this->as($this->me, 'PATCH', "/session-lines/{$id}", ['words' => 'How long may it be?'])
            ->assertOk()
            ->assertJson(['words' => 'How long may it be?', 'former' => ['Größe of the **car**?']]);
        $this->as($this->me, 'PATCH', "/session-lines/{$id}", ['pinned' => true])->assertJsonPath('pinned', true);
        $this->as($this->world->person('otto'), 'PATCH', "/session-lines/{$id}", ['words' => 'Mine'])->assertConflict();
        $picture = self::png(9, 9);
        $kept = $this->as($this->me, 'POST', "/test-sessions/{$session}/captures", [
            'file' => UploadedFile::fake()->createWithContent('seen.png', $picture),
            'id' => (string) Str::uuid7(),
            'words' => '',
        ])->assertCreated();
        $url = substr((string) $kept->json('url'), \strlen('/api/v1'));
        self::assertSame(
            $picture,
            $this->actingAs($this->me)
                ->get("/api/v1{$url}")
                ->streamedContent(),
        );
        self::assertSame(['How long may it be?'], $this->words($session, 'q=LONG%20may'));
        self::assertSame([''], $this->words($session, 'kind=capture'));

        $admin = $this->world->person('ada', Role::Admin);
        $this->as($this->lead, 'POST', "/session-lines/{$id}/removals", ['reason' => 'A name'])->assertForbidden();
        $this->as($admin, 'POST', "/session-lines/{$id}/removals", ['reason' => 'A name'])
            ->assertOk()
            ->assertJson(['words' => '(removed)', 'former' => [], 'removed' => ['reason' => 'A name']]);
        self::assertSame(0, DB::table('session_events')->where('payload', 'like', '%How long may it be%')->count());
        self::assertSame('whole', $this->verify($session), 'that it was taken out is part of the record');
    }

    public function test_it_is_debriefed_by_who_ran_it_and_sealed_by_a_lead_who_read_it(): void
    {
        $this->charter($this->lead)->assertCreated();
        [$id, $own] = [(string) Str::uuid7(), (string) Str::uuid7()];
        $this->start('TST-S1', $id)->assertCreated();
        $debrief = fn() => $this->as($this->me, 'PUT', "/test-sessions/{$id}/debrief", [
            'covered' => 'Cancelling near 48 hours',
            'remarks' => '',
        ]);
        $debrief()->assertConflict()->assertJsonPath('type', 'urn:lucid-step:problem:session-open');
        $this->travelTo('2026-11-30 10:40:00');
        $this->send_($id, 'moves', ['to' => 'stopped'])->assertOk();
        $debrief()->assertOk()->assertJsonPath('covered', 'Cancelling near 48 hours');
        $sign = fn(User $by, string $of) => $this->as($by, 'POST', "/test-sessions/{$of}/sign-offs", ['note' => 'Read']);
        $sign($this->me, $id)->assertForbidden();
        $sign($this->lead, $id)
            ->assertOk()
            ->assertJson(['state' => 'debriefed', 'signed_by' => ['name' => 'Lead'], 'sign_note' => 'Read']);
        self::assertSame(
            ['Lead read TST-S1 and signed it off: Read'],
            DB::table('notices')->where('user_id', $this->me->id)->pluck('text')->all(),
        );
        $sign($this->lead, $id)->assertConflict();
        $debrief()->assertConflict()->assertJsonPath('type', 'urn:lucid-step:problem:signed-off');
        $this->line($id, 'note', 'Too late')->assertConflict();
        $this->as($this->me, 'GET', '/charters/TST-S1')->assertJson([
            'charter' => ['state' => 'debriefed'],
            'sessions' => [['number' => 1]],
        ]);
        self::assertSame('whole', $this->verify($id));

        // Nobody signs their own.
        $this->as($this->lead, 'POST', '/charters/TST-S1/sessions', ['id' => $own])
            ->assertCreated()
            ->assertJsonPath('number', 2);
        $this->as($this->lead, 'POST', "/test-sessions/{$own}/moves", ['to' => 'stopped'])->assertOk();
        $sign($this->lead, $own)->assertConflict()->assertJsonPath('type', 'urn:lucid-step:problem:own-session');
    }

    public function test_whoever_writes_in_the_record_is_named_by_the_check(): void
    {
        $this->charter($this->me)->assertCreated();
        $id = (string) Str::uuid7();
        $this->start('TST-S1', $id)->assertCreated();
        $this->line($id, 'note', 'As it was')->assertCreated();
        self::becomeOwner();
        DB::statement('set session_replication_role = replica');
        DB::table('session_events')
            ->where('session_id', $id)
            ->where('sequence', 2)
            ->update(['bytes' => '{}']);
        DB::statement('set session_replication_role = origin');
        self::assertSame('broken', $this->verify($id));
    }

    /**
     * @param  array<string, mixed>  $more
     *
     * @return TestResponse<\Symfony\Component\HttpFoundation\Response>
     */
    private function charter(User $by, array $more = []): TestResponse
    {
        return $this->as($by, 'POST', '/projects/TST/charters', ['title' => 'Refunds near 48 hours', ...$more]);
    }

    /**
     * @return TestResponse<\Symfony\Component\HttpFoundation\Response>
     */
    private function start(string $charter, ?string $id = null): TestResponse
    {
        return $this->as($this->me, 'POST', "/charters/{$charter}/sessions", ['id' => $id ?? (string) Str::uuid7()]);
    }

    /**
     * @param  array<string, mixed>  $more
     *
     * @return TestResponse<\Symfony\Component\HttpFoundation\Response>
     */
    private function line(string $session, string $kind, string $words, array $more = []): TestResponse
    {
        return $this->send_($session, 'lines', ['id' => (string) Str::uuid7(), 'kind' => $kind, 'words' => $words, ...$more]);
    }

    /**
     * @param  array<string, mixed>  $body
     *
     * @return TestResponse<\Symfony\Component\HttpFoundation\Response>
     */
    private function send_(string $session, string $what, array $body): TestResponse
    {
        return $this->as($this->me, 'POST', "/test-sessions/{$session}/{$what}", $body);
    }

    /**
     * @return list<string>
     */
    private function words(string $session, string $query = ''): array
    {
        return array_column(
            (array) $this->as($this->me, 'GET', "/test-sessions/{$session}/lines?{$query}")
                ->assertOk()
                ->json('items'),
            'words',
        );
    }

    private function verify(string $session): string
    {
        return $this->app->make(SessionJournal::class)->verify(TestSession::query()->findOrFail($session))->state;
    }
}
