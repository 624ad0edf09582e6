<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\Defects;

use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Defects\Tracker\DrainCalls;
use LucidStep\App\Areas\Defects\Tracker\FollowTracker;
use LucidStep\App\Areas\Defects\Tracker\WakeTrackers;
use LucidStep\App\Models\Defect;
use LucidStep\App\Models\TrackerCall;
use LucidStep\App\Models\TrackerConnection;
use LucidStep\App\Models\User;
use LucidStep\Core\Access\Role;
use LucidStep\Core\Defects\Tracker\CallState;
use LucidStep\Tests\Support\FeatureTestCase;
use LucidStep\Tests\Support\PracticeTracker;
use LucidStep\Tests\Support\Walks;

/**
 * Defects go to a tracker outside, also while it is slow, down, refuses, or loses its answers; and what changes there comes back.
 */
final class TrackerTest extends FeatureTestCase
{
    use Walks;

    private User $me;

    private User $admin;

    private PracticeTracker $tracker;

    protected function setUp(): void
    {
        parent::setUp();
        [$this->me, $this->admin] = [$this->world->person('tess'), $this->world->person('the admin', Role::Admin)];
        $this->tracker = PracticeTracker::start();
    }

    protected function tearDown(): void
    {
        $this->tracker->stop();
        parent::tearDown();
    }

    public function test_a_defect_goes_there_with_its_captures_words_and_moves_and_says_where_it_stands(): void
    {
        $this->connect();
        $entry = $this->world->entry($this->me);
        $attempt = $this->walked($entry, $this->me);
        $this->judge($this->me, $attempt, 1, 1, 'fail', ['happened' => 'It broke.']);
        $this->upload($this->me, $attempt, self::png(4, 4), ['round' => 1, 'step' => 1])->assertSuccessful();
        $this->as($this->me, 'POST', '/projects/TST/defects', [
            'title' => 'The gate',
            'actual' => 'Shut',
            'attempt_id' => $attempt,
            'round' => 1,
            'step' => 1,
        ])
            ->assertCreated()
            ->assertJsonPath('outside.state', 'waiting')
            ->assertJsonCount(2, 'outside.calls');
        $this->as($this->me, 'POST', '/defects/TST-D1/comments', ['text' => 'Also at night'])->assertCreated();
        $this->as($this->me, 'POST', '/defects/TST-D1/moves', ['state' => 'in_work'])->assertOk();
        $this->drain();
        self::assertSame(4, $this->sent());
        $issue = $this->tracker->kept()['issues']['TRK-1'];
        self::assertSame('TST-D1 The gate', $issue['title']);
        self::assertStringContainsString("## Actual\n\nShut", $issue['text']);
        self::assertSame(
            ['doing', 'Tess: Also at night', 1],
            [$issue['state'], ucfirst($issue['comments'][0]['text']), count($issue['attachments'])],
        );
        $this->as($this->me, 'GET', '/defects/TST-D1')
            ->assertJsonPath('outside.state', 'sent')
            ->assertJsonPath('outside.key', 'TRK-1')
            ->assertJsonPath('outside.outside_state', 'doing');
        // Our own change told back is no news.
        $history = DB::table('defect_changes')->count();
        app(FollowTracker::class)->poll(TrackerConnection::query()->firstOrFail());
        self::assertSame($history, DB::table('defect_changes')->count());
        self::assertSame(0, TrackerCall::query()->where('state', CallState::Waiting)->count());
    }

    public function test_while_it_is_down_or_loses_answers_everything_waits_and_arrives_once_and_in_order(): void
    {
        $this->connect();
        foreach (['One', 'Two', 'Three'] as $title) {
            $this->as($this->me, 'POST', '/projects/TST/defects', ['title' => $title])->assertCreated();
        }
        mt_srand(40);
        $said = ['TST-D1' => [], 'TST-D2' => [], 'TST-D3' => []];
        for ($n = 1; $n <= 57; $n++) {
            $key = 'TST-D' . mt_rand(1, 3);
            $this->as($this->me, 'POST', "/defects/{$key}/comments", ['text' => "Word {$n}"])->assertCreated();
            $said[$key][] = "Word {$n}";
        }
        for ($turn = 0; $turn < 400 && TrackerCall::query()->where('state', '<>', CallState::Sent)->exists(); $turn++) {
            $this->tracker->set(['down', 'lose', 'refuse', 'ok'][$turn % 4]);
            $this->travelTo(Carbon::now()->addMinutes(70));
            for ($n = mt_rand(1, 6); $n > 0; $n--) {
                $this->drain();
            }
            foreach (TrackerCall::query()->where('state', CallState::Refused)->get() as $call) {
                self::assertStringContainsString('It refuses this: mend it, and send it again. It said:', $call->problem);
                $this->as($this->me, 'POST', "/tracker-calls/{$call->id}/repetitions")->assertOk();
            }
        }
        self::assertSame(60, TrackerCall::query()->where('state', CallState::Sent)->count());
        $kept = $this->tracker->kept()['issues'];
        self::assertCount(3, $kept, 'each once');
        foreach (Defect::query()->orderBy('number')->get() as $defect) {
            $arrived = array_map(
                static fn(array $c): string => substr((string) strstr($c['text'], ': '), 2),
                $kept[(string) $defect->outside_key]['comments'],
            );
            self::assertSame($said[$defect->key], $arrived);
        }
    }

    public function test_five_failures_in_a_row_let_it_rest_and_the_admin_sees_all_that_waits(): void
    {
        $this->connect();
        $this->tracker->set('down');
        for ($n = 1; $n <= 7; $n++) {
            $this->as($this->me, 'POST', '/projects/TST/defects', ['title' => "No {$n}"])->assertCreated();
        }
        self::assertSame(0, $this->drain());
        self::assertSame(5, TrackerCall::query()->where('tries', 1)->count());
        $seen = $this->as($this->admin, 'GET', '/projects/TST/tracker')->assertOk();
        $seen->assertJsonPath('waiting', 7)->assertJsonPath('refused', 0)->assertJsonCount(7, 'calls');
        self::assertStringContainsString('503', (string) $seen->json('problem'));
        self::assertNotNull($seen->json('resting_until'));
        $this->tracker->set('ok');
        self::assertSame(0, $this->drain(), 'it rests');
        $this->travelTo(Carbon::now()->addMinutes(5));
        (new WakeTrackers())();
        $this->drain();
        self::assertSame(7, TrackerCall::query()->where('state', CallState::Sent)->count());
        $this->as($this->me, 'GET', '/projects/TST/tracker')->assertForbidden();
    }

    public function test_what_changes_there_comes_back_signed_once_and_in_its_order(): void
    {
        $id = $this->connect();
        $dev = $this->world->person('dev', Role::Developer);
        $this->as($this->me, 'POST', '/projects/TST/defects', ['title' => 'The gate'])->assertCreated();
        $this->drain();
        $secret = (string) $this->as($this->admin, 'POST', '/projects/TST/tracker-secrets')->assertCreated()->json('secret');
        $tell = function (string $state, string $changed, string $event, ?string $secretUsed = null, int $ago = 0) use (
            $id,
            $secret,
            $dev,
        ): int {
            [$time, $body] = [
                (string) (Carbon::now()->getTimestamp() - $ago),
                (string) json_encode(['key' => 'TRK-1', 'state' => $state, 'changed' => $changed, 'assignee' => $dev->email]),
            ];
            return $this->call(
                'POST',
                "/api/v1/tracker-webhooks/{$id}",
                server: [
                    'HTTP_X_LUCID_TIME' => $time,
                    'HTTP_X_LUCID_SIGNATURE' => hash_hmac('sha256', "{$time}.{$body}", $secretUsed ?? $secret),
                    'HTTP_X_LUCID_EVENT' => $event,
                ],
                content: $body,
            )->getStatusCode();
        };
        $state = fn(): string => Defect::query()->firstOrFail()->state->value;
        self::assertSame([404, 404], [$tell('done', '', 'a', 'wrong'), $tell('done', '', 'a', null, 400)]);
        self::assertSame('new', $state());
        $later = Carbon::now()->addMinute();
        self::assertSame(204, $tell('doing', $later->toIso8601ZuluString(), 'e2'));
        self::assertSame(['in_work', $dev->id], [$state(), Defect::query()->firstOrFail()->assignee_id]);
        self::assertSame(204, $tell('declined', $later->copy()->subSeconds(30)->toIso8601ZuluString(), 'e1'), 'it was overtaken');
        self::assertSame('in_work', $state());
        self::assertSame(204, $tell('question', $later->copy()->addMinute()->toIso8601ZuluString(), 'e3'));
        self::assertSame('needs_information', $state());
        self::assertSame(204, $tell('doing', $later->copy()->addMinutes(2)->toIso8601ZuluString(), 'e3'), 'known already');
        self::assertSame('needs_information', $state());
        self::assertSame(0, TrackerCall::query()->where('state', CallState::Waiting)->count(), 'nothing of that is sent back');
        $this->as($this->me, 'GET', '/defects/TST-D1')
            ->assertJsonPath('history.1.outside', true)
            ->assertJsonPath('history.1.note', 'TRK-1 in the tracker: doing');
        // Nobody told: it is asked for.
        $this->tracker->press(['key' => 'TRK-1', 'state' => 'done', 'assignee' => '']);
        app(FollowTracker::class)->poll(TrackerConnection::query()->firstOrFail());
        self::assertSame('needs_information', $state(), 'it is older than what was told');
        Defect::query()->update(['outside_changed' => '']);
        TrackerConnection::query()->update(['cursor' => '']);
        app(FollowTracker::class)->poll(TrackerConnection::query()->firstOrFail());
        self::assertSame('fixed', $state());
    }

    public function test_settings_keep_the_token_to_themselves_and_an_address_within_is_not_called(): void
    {
        $this->connect();
        $seen = $this->as($this->admin, 'GET', '/projects/TST/tracker')->assertJsonPath('has_token', true);
        self::assertStringNotContainsString('a-token', (string) $seen->getContent());
        self::assertStringNotContainsString('a-token', (string) json_encode(DB::table('tracker_connections')->get()));
        $try = $this->as($this->admin, 'POST', '/projects/TST/tracker-tries')->assertOk();
        $try->assertJsonPath('status', 201)->assertJsonPath('key', 'TRK-1')->assertJsonPath('problem', '');
        $save = fn(array $said): mixed => $this->as($this->admin, 'PATCH', '/projects/TST/tracker', $said);
        $save(['mapping' => ['answers' => ['key' => 'data.key']]])
            ->assertOk()
            ->assertJsonPath('mapping.answers.key', 'data.key');
        $this->as($this->admin, 'POST', '/projects/TST/tracker-tries')->assertJsonPath('problem', 'No key stands at "data.key".');
        $save(['token' => 'old', 'mapping' => []])->assertOk();
        self::assertStringContainsString(
            'does not take the token',
            (string) $this->as($this->admin, 'POST', '/projects/TST/tracker-tries')->json('problem'),
        );
        $save(['address' => 'http://user:x@tracker.example'])
            ->assertUnprocessable()
            ->assertJsonStructure(['errors' => ['address']]);
        // Another place gets another token.
        $save(['address' => 'http://169.254.169.254/latest'])
            ->assertOk()
            ->assertJsonPath('has_token', false);
        $within = $this->as($this->admin, 'POST', '/projects/TST/tracker-tries')->assertOk()->assertJsonPath('status', null);
        self::assertStringContainsString('lies within the network', (string) $within->json('problem'));
        $this->as($this->me, 'PATCH', '/projects/TST/tracker', ['enabled' => false])->assertForbidden();
        $save(['enabled' => false])->assertOk();
        $this->as($this->me, 'POST', '/projects/TST/defects', ['title' => 'Here only'])
            ->assertCreated()
            ->assertJsonPath('outside', null);
        $this->as($this->me, 'POST', '/defects/TST-D1/tracker-calls')->assertConflict();
        $this->as($this->admin, 'DELETE', '/projects/TST/tracker')->assertOk()->assertJsonPath('is_set', false);
        $this->as($this->admin, 'POST', '/projects/TST/tracker-tries')->assertConflict();
    }

    public function test_only_what_somebody_sends_goes_there_and_what_is_refused_can_be_left_out(): void
    {
        $this->connect(['sends_each' => false]);
        $this->as($this->me, 'POST', '/projects/TST/defects', ['title' => 'The gate'])
            ->assertCreated()
            ->assertJsonPath('outside.state', 'here');
        $this->as($this->me, 'POST', '/defects/TST-D1/comments', ['text' => 'Stays here'])->assertCreated();
        self::assertSame(0, $this->drain());
        $this->tracker->set('refuse');
        $this->as($this->me, 'POST', '/defects/TST-D1/tracker-calls')->assertCreated()->assertJsonPath('outside.state', 'waiting');
        $this->as($this->me, 'POST', '/defects/TST-D1/comments', ['text' => 'My number is 4711'])->assertCreated();
        $this->drain();
        $read = $this->as($this->me, 'GET', '/defects/TST-D1')
            ->assertJsonPath('outside.state', 'refused')
            ->assertJsonCount(2, 'outside.calls');
        // Words that are taken out do not go there either.
        $comment = $read->json('comments.1.id');
        $this->as($this->admin, 'POST', "/defect-comments/{$comment}/removals", ['reason' => 'A number'])->assertOk();
        self::assertStringNotContainsString('4711', (string) json_encode(DB::table('tracker_calls')->get()));
        $call = (string) $read->json('outside.calls.0.id');
        $this->as($this->me, 'DELETE', "/tracker-calls/{$call}")
            ->assertOk()
            ->assertJsonPath('outside.state', 'here');
        $this->as($this->me, 'DELETE', "/tracker-calls/{$call}")->assertConflict();
        $this->tracker->set('ok');
        $this->as($this->me, 'POST', '/defects/TST-D1/tracker-calls')->assertCreated();
        $this->drain();
        self::assertSame(1, $this->sent());
        $this->as($this->me, 'POST', '/defects/TST-D1/tracker-calls')->assertCreated();
        self::assertSame(1, $this->sent(), 'it is there already');
    }

    /**
     * @param  array<string, mixed>  $more
     *
     * @return string the id of the connection
     */
    private function connect(array $more = []): string
    {
        $set = $this->as($this->admin, 'PATCH', '/projects/TST/tracker', [
            'address' => $this->tracker->address,
            'token' => 'a-token',
            ...$more,
        ]);

        return basename((string) $set->assertOk()->json('webhook'));
    }

    private function sent(): int
    {
        return TrackerCall::query()->where('state', CallState::Sent)->count();
    }

    private function drain(): int
    {
        return app(DrainCalls::class)($this->world->project->id);
    }
}
