<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\Walk;

use Illuminate\Http\UploadedFile;
use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use LucidStep\App\Areas\Walk\Commands\CommandRegistry;
use LucidStep\App\Models\LateCommand;
use LucidStep\App\Models\LateState;
use LucidStep\App\Models\User;
use LucidStep\Tests\Support\FeatureTestCase;
use LucidStep\Tests\Support\Walks;
use PHPUnit\Framework\Attributes\DataProvider;

/**
 * The second way is the first way: whatever is recorded leaves the same rows and writes the same event, whether it arrives
 * in time, arrives late and is applied, or is accepted by a lead.
 */
final class ParityTest extends FeatureTestCase
{
    use Walks;

    private const WAYS = ['in time', 'late', 'accepted by a lead'];

    private User $me;

    private User $lead;

    protected function setUp(): void
    {
        parent::setUp();
        $this->me = $this->world->person();
        $this->lead = $this->world->lead();
    }

    /**
     * @return array<string, array{string, string, array<string, mixed>}> method, address and body; `{a}` is the attempt, `{e}` its
     *                                                                    first picture, `{s}` its second
     */
    public static function commands(): array
    {
        $a = '/attempts/{a}';
        $e = '/evidence/{e}';

        return [
            'verdict_given' => [
                'POST',
                "{$a}/verdicts",
                ['round' => 1, 'step' => 2, 'verdict' => 'fail', 'happened' => ' It broke. ', 'reason' => 'Too slow', 'active_ms' => 900],
            ],
            'verdict_taken_back' => ['POST', "{$a}/verdicts", ['round' => 1, 'step' => 1, 'verdict' => 'not_run', 'active_ms' => 40]],
            'note_written' => ['POST', "{$a}/notes", ['round' => 1, 'step' => 2, 'note' => ' A slow day ']],
            'note_written of the attempt' => ['POST', "{$a}/notes", ['note' => 'Rain all day']],
            'tried' => ['POST', "{$a}/tries", ['round' => 1, 'step' => 2, 'failed' => true]],
            'round_skip' => ['POST', "{$a}/rounds", ['round' => 2, 'act' => 'skip', 'reason' => 'Nobody there']],
            'round_take_up' => ['POST', "{$a}/rounds", ['round' => 3, 'act' => 'take_up']],
            'round_repeat' => ['POST', "{$a}/rounds", ['round' => 1, 'act' => 'repeat']],
            'away_decided' => ['POST', "{$a}/away", ['away_ms' => 900_000, 'counted_ms' => 1_200_000]],
            'surroundings_said' => ['POST', "{$a}/surroundings", ['environment' => ' Quay tablet ']],
            'evidence_added' => ['POST', "{$a}/evidence", ['round' => 1, 'step' => 2, 'link' => 'https://a.test/x', 'name' => 'The page']],
            'evidence_captioned' => ['PATCH', $e, ['caption' => ' What I saw ']],
            'evidence_moved' => ['POST', "{$e}/moves", ['round' => 1, 'step' => 2]],
            'evidence_marked' => [
                'POST',
                "{$e}/markups",
                ['markup' => '{"shapes":[{"kind":"box","x":1,"y":1,"width":3,"height":3}],"width":20,"height":10}', 'file' => 'drawn'],
            ],
            'evidence_redacted' => ['POST', '/evidence/{s}/redactions', ['file' => 'hidden']],
            'evidence_removed' => ['DELETE', $e, []],
            'finished' => [
                'POST',
                "{$a}/finish",
                ['verdict' => 'pass', 'note' => 'Seen by two of us', 'active_ms' => 500, 'time' => '12m'],
            ],
        ];
    }

    /**
     * @param  array<string, mixed>  $body
     */
    #[DataProvider('commands')]
    public function test_it_is_the_same_in_time_and_late(string $method, string $path, array $body): void
    {
        $left = [];
        foreach (self::WAYS as $way) {
            $left[$way] = $this->left($way, $method, $path, $body);
        }
        self::assertNotSame([], $left['in time']['events'], 'it writes an event');
        self::assertSame($left['in time'], $left['late'], 'late, and applied');
        self::assertSame($left['in time'], $left['accepted by a lead'], 'accepted by a lead');
    }

    /**
     * What the rules refuse in time they refuse a lead as well: it is set aside with their reason, and nothing is changed.
     *
     * @param  array<string, mixed>  $body
     */
    #[DataProvider('refusals')]
    public function test_what_is_refused_in_time_is_refused_to_a_lead(string $path, array $body): void
    {
        $attempt = $this->attempt('in time');
        $before = $this->rows($attempt);
        $this->deliver($attempt, 'POST', $path, $body)->assertUnprocessable();
        self::assertSame($before, $this->rows($attempt));
        $attempt = $this->attempt('accepted by a lead');
        $before = $this->rows($attempt);
        $this->deliver($attempt, 'POST', $path, $body)->assertStatus(202);
        $late = LateCommand::query()->firstOrFail();
        $this->as($this->lead, 'POST', "/late-commands/{$late->id}/judgements", ['accept' => true])
            ->assertOk()
            ->assertJsonPath('applied', 0)
            ->assertJsonCount(1, 'refused');
        self::assertSame(LateState::SetAside, $late->refresh()->state);
        self::assertSame($before, $this->rows($attempt));
        $this->as($this->lead, 'GET', "/attempts/{$attempt}/verification")->assertJsonPath(
            'state',
            'finished' === DB::table('attempts')->where('id', $attempt)->value('state') ? 'whole' : 'open',
        );
    }

    /**
     * @return array<string, array{string, array<string, mixed>}>
     */
    public static function refusals(): array
    {
        return [
            'a round left out without a word' => ['/attempts/{a}/rounds', ['round' => 2, 'act' => 'skip', 'reason' => '–']],
            'a judged round left out' => ['/attempts/{a}/rounds', ['round' => 1, 'act' => 'skip', 'reason' => 'Nobody there']],
            'a verdict in a round that is left out' => ['/attempts/{a}/verdicts', ['round' => 3, 'step' => 1, 'verdict' => 'pass']],
            'a verdict for a step that is not there' => ['/attempts/{a}/verdicts', ['round' => 1, 'step' => 9, 'verdict' => 'pass']],
            'overruled without a note' => ['/attempts/{a}/finish', ['verdict' => 'blocked', 'note' => '']],
            'finished with steps not run and no verdict' => ['/attempts/{a}/finish', []],
        ];
    }

    public function test_every_kind_of_command_is_among_them(): void
    {
        $kinds = $this->app?->make(CommandRegistry::class)->kinds() ?? [];
        // A comparison needs a reference picture of the case; EvidenceTest makes one.
        self::assertSame([], array_diff($kinds, array_keys(self::commands()), ['compared']));
    }

    /**
     * @param  array<string, mixed>  $body
     *
     * @return array{rows: array<string, mixed>, events: list<array<string, mixed>>} what a command left, without ids and times
     */
    private function left(string $way, string $method, string $path, array $body): array
    {
        $attempt = $this->attempt($way);
        $last = (int) DB::table('events')->where('attempt_id', $attempt)->max('sequence');
        $stamp = 'late' === $way ? ['device_time' => Carbon::now()->subHour()->toIso8601ZuluString('millisecond')] : [];
        $sent = $this->deliver($attempt, $method, $path, [...$body, ...$stamp]);
        $sent->assertStatus('accepted by a lead' === $way ? 202 : ('evidence_added' === $this->dataName() ? 201 : 200));
        if ('accepted by a lead' === $way) {
            $late = LateCommand::query()->firstOrFail();
            $this->as($this->lead, 'POST', "/late-commands/{$late->id}/judgements", ['accept' => true])
                ->assertOk()
                ->assertJsonPath('refused', []);
        }
        $events = DB::table('events')
            ->where('attempt_id', $attempt)
            ->where('sequence', '>', $last)
            ->whereNot('kind', 'late_act_accepted')
            ->orderBy('sequence')
            ->get();
        self::assertSame(
            'in time' !== $way,
            $events->contains(static fn(\stdClass $e): bool => true === (json_decode($e->payload, true)['arrived_late'] ?? null)),
            $way,
        );
        $this->as($this->lead, 'GET', "/attempts/{$attempt}/verification")->assertJsonPath(
            'state',
            'finished' === DB::table('attempts')->where('id', $attempt)->value('state') ? 'whole' : 'open',
        );

        return [
            'rows' => $this->rows($attempt),
            'events' => array_values(
                $events
                    ->map(
                        fn(\stdClass $e): array => [
                            'kind' => $e->kind,
                            'actor' => $e->actor_id,
                            'payload' => array_diff_key((array) json_decode($this->plain($attempt, $e->payload), true), [
                                'arrived_late' => 1,
                            ]),
                            'evidence' => $e->evidence,
                        ],
                    )
                    ->all(),
            ),
        ];
    }

    /**
     * An attempt with a judged step, a round left out and two pictures; for what is to come late another person has it.
     */
    private function attempt(string $way): string
    {
        $attempt = $this->walked($this->withRows($this->me, [['isla', '3'], ['tom', '2'], ['ada', '1']]), $this->me);
        $this->judge($this->me, $attempt, 1, 1, 'pass');
        $this->as($this->me, 'POST', "/attempts/{$attempt}/rounds", ['round' => 3, 'act' => 'skip', 'reason' => 'Not today'])->assertOk();
        // Pictures of their own: what is hidden of one goes out of every attempt that shows it.
        $this->upload($this->me, $attempt, self::png(20, 10), ['round' => 1, 'step' => 1])->assertCreated();
        $this->upload($this->me, $attempt, self::png(21 + (int) DB::table('attempts')->count(), 10), [
            'round' => 1,
            'step' => 1,
        ])->assertCreated();
        if ('in time' !== $way) {
            $this->as($this->world->person("taker{$attempt}"), 'POST', "/attempts/{$attempt}/take-over", [])->assertOk();
        }

        return $attempt;
    }

    /**
     * @param  array<string, mixed>  $body
     *
     * @return \Illuminate\Testing\TestResponse<\Symfony\Component\HttpFoundation\Response>
     */
    private function deliver(string $attempt, string $method, string $path, array $body): \Illuminate\Testing\TestResponse
    {
        $evidence = DB::table('evidence')->where('attempt_id', $attempt)->orderBy('created_at')->pluck('id');
        $path = strtr($path, ['{a}' => $attempt, '{e}' => $evidence[0] ?? '', '{s}' => $evidence[1] ?? '']);
        if (str_ends_with($path, '/evidence')) {
            $body['id'] = (string) Str::uuid7();
        }
        if (isset($body['file'])) {
            $body['file'] = UploadedFile::fake()->createWithContent('p.png', self::png('drawn' === $body['file'] ? 22 : 23, 11));

            return $this->actingAs($this->me)->post("/api/v1{$path}", $body, ['Accept' => 'application/json']);
        }

        return $this->as($this->me, $method, $path, $body);
    }

    /**
     * @return array<string, mixed>
     */
    private function rows(string $attempt): array
    {
        $without = static fn(iterable $rows, string ...$columns): array => array_map(
            static fn(\stdClass $r): array => array_diff_key((array) $r, array_flip($columns)),
            iterator_to_array($rows),
        );
        $rounds = DB::table('rounds')->where('attempt_id', $attempt)->orderBy('position')->get();
        $steps = DB::table('step_results')
            ->join('rounds', 'rounds.id', '=', 'round_id')
            ->where('attempt_id', $attempt)
            ->orderBy('rounds.position')
            ->orderBy('step_results.position')
            ->get(['rounds.position as round', 'step_results.*', DB::raw('judged_at is not null as judged')]);

        return [
            'attempt' => array_diff_key(
                (array) DB::table('attempts')->where('id', $attempt)->first(),
                array_flip([
                    'id',
                    'entry_id',
                    'tester_id',
                    'taken_over_at',
                    'started_at',
                    'finished_at',
                    'sequence',
                    'head',
                    'sealed_sequence',
                    'sealed_head',
                    'seal_signature',
                    'snapshot',
                    'takeover_word',
                    'created_at',
                    'updated_at',
                    'number',
                ]),
            ),
            'rounds' => $without($rounds, 'id', 'attempt_id'),
            'steps' => $without($steps, 'id', 'round_id', 'judged_at'),
            'evidence' => json_decode(
                $this->plain(
                    $attempt,
                    (string) json_encode(
                        $without(
                            DB::table('evidence')->where('attempt_id', $attempt)->orderBy('created_at')->get(),
                            'attempt_id',
                            'created_at',
                            'device_time',
                            'removed_at',
                            'updated_at',
                        ),
                    ),
                ),
                true,
            ),
            'shown' => DB::table('entries')
                ->where('id', DB::table('attempts')->where('id', $attempt)->value('entry_id'))
                ->value('display_state'),
        ];
    }

    /**
     * Without what differs from attempt to attempt.
     */
    private function plain(string $attempt, string $json): string
    {
        $names = [];
        foreach (
            DB::table('evidence')
                ->where('attempt_id', $attempt)
                ->orderBy('created_at')
                ->get(['id', 'sha256'])
            as $at => $row
        ) {
            $names[$row->id] = "picture {$at}";
        }
        // The second picture is another one in each attempt.
        foreach (
            DB::table('events')->where('attempt_id', $attempt)->where('kind', 'evidence_added')->orderBy('sequence')->pluck('evidence')
            as $at => $hashes
        ) {
            foreach (json_decode($hashes, true) as $hash) {
                $names[$hash] = "content {$at}";
            }
        }

        return strtr($json, $names);
    }
}
