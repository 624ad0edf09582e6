<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\Sessions;

use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use Illuminate\Testing\TestResponse;
use LucidStep\App\Models\Environment;
use LucidStep\App\Models\TestSession;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Record\SessionJournal;
use LucidStep\Core\Access\Role;
use LucidStep\Core\Sessions\ObserverBounds;
use LucidStep\Tests\Support\FeatureTestCase;

/**
 * A page reports into a session: by its code and from a listed address, each act once and in its place, and whatever it says is text.
 */
final class ObserveTest extends FeatureTestCase
{
    private const ORIGIN = 'https://staging.example';

    private User $me;

    private string $session;

    private string $code;

    private int $n = 0;

    protected function setUp(): void
    {
        parent::setUp();
        $this->me = $this->world->person('tess');
        Environment::query()->create([
            'project_id' => $this->world->project->id,
            'name' => 'Staging',
            'address' => self::ORIGIN . '/booking',
            'notes' => '',
            'position' => 1,
            'observed' => true,
        ]);
        Carbon::setTestNow('2026-11-30 10:00:00');
        $this->as($this->me, 'POST', '/projects/TST/charters', ['title' => 'Refunds'])->assertCreated();
        $this->session = (string) Str::uuid7();
        $this->as($this->me, 'POST', '/charters/TST-S1/sessions', ['id' => $this->session])->assertCreated();
        $this->code = (string) $this->as($this->me, 'POST', "/test-sessions/{$this->session}/observer")
            ->assertCreated()
            ->json('code');
    }

    public function test_only_a_listed_address_with_the_code_of_the_session_gets_in(): void
    {
        $said = $this->told([$this->act('visit')]);
        $said->assertOk()->assertExactJson(['state' => 'running', 'charter' => 'TST-S1', 'kept' => 1]);
        self::assertSame(self::ORIGIN, $said->headers->get('Access-Control-Allow-Origin'));
        self::assertStringContainsString('Origin', (string) $said->headers->get('Vary'));
        self::assertNull($said->headers->get('Access-Control-Allow-Credentials'));

        foreach (['https://staging.example.evil', 'http://staging.example', 'https://staging.example:8443', 'null', ''] as $origin) {
            $refused = $this->told([$this->act('press')], origin: $origin)->assertForbidden();
            self::assertNull($refused->headers->get('Access-Control-Allow-Origin'), $origin);
        }
        // Whoever runs the session sees what asks to be let in.
        $this->as($this->me, 'GET', "/test-sessions/{$this->session}/observer")
            ->assertOk()
            ->assertJson(['is_paired' => true, 'code' => $this->code, 'page' => '/booking', 'refused' => 'https://staging.example:8443']);
        $this->as($this->world->lead(), 'GET', "/test-sessions/{$this->session}/observer")
            ->assertOk()
            ->assertJson(['code' => null, 'is_paired' => true]);

        $this->told([$this->act('press')], code: 'AAAA-AAAA-AAAA-AAAA')->assertNotFound();
        $old = $this->code;
        $this->code = (string) $this->as($this->me, 'POST', "/test-sessions/{$this->session}/observer")->json('code');
        $this->told([$this->act('press')], code: $old)->assertNotFound();
        $this->told([$this->act('press')])->assertOk();
        $this->as($this->me, 'DELETE', "/test-sessions/{$this->session}/observer")
            ->assertOk()
            ->assertJson(['is_paired' => false]);
        $this->told([$this->act('press')])->assertNotFound();
        $this->as($this->world->person('otto'), 'POST', "/test-sessions/{$this->session}/observer")->assertConflict();

        Environment::query()->update(['observed' => false]);
        $this->code = (string) $this->as($this->me, 'POST', "/test-sessions/{$this->session}/observer")->json('code');
        $this->told([$this->act('press')])->assertForbidden();
        self::assertCount(2, $this->lines());
    }

    public function test_acts_come_once_in_their_order_while_it_ran_by_whatever_clock(): void
    {
        $acts = [$this->act('visit', at: 5_000), $this->act('press', at: 6_000), $this->act('type', at: 6_000, more: ['value' => '2'])];
        Carbon::setTestNow('2026-11-30 10:00:10');
        // The clock of the page is three hours ahead; the later ones come first, and all of them twice.
        $this->told([$acts[2], $acts[1]], ahead: 10_800_000)
            ->assertOk()
            ->assertJsonPath('kept', 2);
        $this->told([$acts[0], $acts[0], $acts[1]], ahead: 10_800_000)
            ->assertOk()
            ->assertJsonPath('kept', 1);
        self::assertSame(['5000 Open "/booking"', '6000 Press "Pay"', '6000 Type "2" into "Pay"'], $this->lines());

        $this->as($this->me, 'POST', "/test-sessions/{$this->session}/moves", ['to' => 'paused'])->assertOk();
        Carbon::setTestNow('2026-11-30 10:01:00');
        $this->told([$this->act('press', at: 30_000)])
            ->assertOk()
            ->assertJson(['state' => 'paused', 'kept' => 0]);
        // What was done before the pause, and before the stop, is taken when it comes late; what was done after is not.
        $this->told([$this->act('press', at: 9_000)])->assertJsonPath('kept', 1);
        $this->as($this->me, 'POST', "/test-sessions/{$this->session}/moves", ['to' => 'stopped'])->assertOk();
        $this->told([$this->act('press', at: 8_000), $this->act('press', at: 59_000)])->assertJson(['state' => 'stopped', 'kept' => 1]);
        $this->as($this->world->lead(), 'POST', "/test-sessions/{$this->session}/sign-offs", ['note' => ''])->assertOk();
        $late = $this->told([$this->act('press', at: 7_000)])->assertConflict();
        self::assertSame(self::ORIGIN, $late->headers->get('Access-Control-Allow-Origin'));
        self::assertCount(5, $this->lines());
        self::assertSame('whole', $this->app->make(SessionJournal::class)->verify(TestSession::query()->findOrFail($this->session))->state);
    }

    public function test_a_page_that_floods_is_bounded_and_that_is_said(): void
    {
        for ($i = 0; $i < 9; ++$i) {
            $this->told(array_map(fn(): array => $this->act('press'), range(1, ObserverBounds::AT_ONCE)))->assertOk();
        }
        $this->told(array_map(fn(): array => $this->act('press'), range(1, ObserverBounds::AT_ONCE + 1)))
            ->assertUnprocessable()
            ->assertJsonStructure(['errors' => ['acts']]);
        $kinds = DB::table('session_lines')->selectRaw('kind, count(*) as n')->groupBy('kind')->pluck('n', 'kind')->all();
        self::assertSame(['press' => ObserverBounds::A_MINUTE, 'trouble' => 1], [...$kinds]);
        $this->as($this->me, 'GET', "/test-sessions/{$this->session}/observer")->assertJsonPath('left_out', 300);
        // What the page itself could not keep is counted too; a minute later there is room again.
        Carbon::setTestNow('2026-11-30 10:01:30');
        $this->told([$this->act('press', at: 90_000)], lost: 7)
            ->assertOk()
            ->assertJsonPath('kept', 1);
        self::assertSame('whole', $this->app->make(SessionJournal::class)->verify(TestSession::query()->findOrFail($this->session))->state);
    }

    public function test_whatever_it_says_is_text_and_what_is_secret_in_the_project_is_hidden(): void
    {
        $this->as($this->me, 'POST', '/projects/TST/data-tables', [
            'name' => 'Cards',
            'columns' => [['name' => 'code', 'secret' => true]],
            'rows' => [['cells' => ['GEHEIM-4711']]],
        ])->assertCreated();
        $script = '<script>alert(1)</script>';
        $this->told([
            $this->act('type', more: ['control' => $script, 'value' => "{$script} GEHEIM-4711", 'page' => "/{$script}?code=GEHEIM-4711"]),
            $this->act('trouble', more: ['words' => 'GEHEIM-4711 is not known']),
        ])->assertOk();
        self::assertStringNotContainsString(
            'GEHEIM',
            (string) DB::table('session_lines')->selectRaw("string_agg(session_lines::text, '') as t")->value('t'),
        );
        self::assertStringNotContainsString(
            'GEHEIM',
            (string) DB::table('session_events')->selectRaw("string_agg(session_events::text, '') as t")->value('t'),
        );
        self::assertStringContainsString($script, implode('', $this->lines()));
        foreach (
            [['kind' => 'note'], ['id' => 'x'], ['at' => 'soon'], ['n' => -1], ['page' => null], ['tab' => str_repeat('t', 65)]]
            as $wrong
        ) {
            $this->told([[...$this->act('press'), ...$wrong]])->assertUnprocessable();
        }
        // A removal takes an observed act out everywhere, and the record stays whole.
        $line = (string) DB::table('session_lines')->where('kind', 'type')->value('id');
        $this->as($this->world->person('admin', Role::Admin), 'POST', "/session-lines/{$line}/removals", [
            'reason' => 'Private',
        ])->assertOk();
        self::assertStringNotContainsString(
            'alert(1)',
            (string) DB::table('session_events')->selectRaw("string_agg(payload, '') as t")->value('t'),
        );
        self::assertSame('whole', $this->app->make(SessionJournal::class)->verify(TestSession::query()->findOrFail($this->session))->state);
    }

    public function test_nothing_comes_into_an_archived_project_or_for_somebody_who_left(): void
    {
        DB::table('memberships')
            ->where('user_id', $this->me->id)
            ->update(['role' => 'reader']);
        $this->told([$this->act('press')])->assertNotFound();
        DB::table('memberships')
            ->where('user_id', $this->me->id)
            ->update(['role' => 'tester']);
        $this->told([$this->act('press')])->assertOk();
        DB::table('projects')->update(['archived_at' => now()]);
        $this->told([$this->act('press')])->assertConflict();
        self::assertCount(1, $this->lines());
    }

    /**
     * @param  array<string, mixed>  $more
     *
     * @return array<string, mixed>
     */
    private function act(string $kind, int $at = 0, array $more = []): array
    {
        return [
            'id' => (string) Str::uuid7(),
            'kind' => $kind,
            'at' => Carbon::parse('2026-11-30 10:00:00')->getTimestampMs() + $at,
            'n' => ++$this->n,
            'tab' => 't1',
            'page' => '/booking',
            'control' => 'Pay',
            ...$more,
        ];
    }

    /**
     * As a page sends it: JSON that is called plain text, nobody signed in.
     *
     * @param  list<array<string, mixed>>  $acts
     * @param  int  $ahead how far its clock is ahead, in ms
     *
     * @return TestResponse<\Symfony\Component\HttpFoundation\Response>
     */
    private function told(array $acts, ?string $code = null, string $origin = self::ORIGIN, int $ahead = 0, int $lost = 0): TestResponse
    {
        $this->app->forgetScopedInstances();
        $this->app->make('auth')->forgetGuards();
        $acts = array_map(static fn(array $a): array => \is_int($a['at']) ? [...$a, 'at' => $a['at'] + $ahead] : $a, $acts);
        $sent = now()->addMilliseconds($ahead)->toIso8601ZuluString('millisecond');

        return $this->call(
            'POST',
            '/api/v1/observations',
            server: ['CONTENT_TYPE' => 'text/plain', 'HTTP_ACCEPT' => '*/*', 'HTTP_ORIGIN' => $origin],
            content: json_encode(
                ['code' => $code ?? $this->code, 'sent_at' => $sent, 'lost' => $lost, 'acts' => $acts],
                \JSON_THROW_ON_ERROR,
            ),
        );
    }

    /**
     * @return list<string>
     */
    private function lines(): array
    {
        return array_values(
            array_map(
                static fn(array $l): string => "{$l['at_ms']} {$l['words']}",
                (array) $this->as($this->me, 'GET', "/test-sessions/{$this->session}/lines")->json('items'),
            ),
        );
    }
}
