<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\Sessions;

use Illuminate\Http\UploadedFile;
use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use LucidStep\App\Areas\Sessions\Actions\TakeObservations;
use LucidStep\App\Models\Build;
use LucidStep\App\Models\SessionLine;
use LucidStep\App\Models\TestSession;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Record\SessionJournal;
use LucidStep\Core\Access\Role;
use LucidStep\Core\Sessions\ObservedAct;
use LucidStep\Tests\Support\FeatureTestCase;

/**
 * What led to an issue is proposed, trimmed, kept, walked again, and becomes a defect, a case, or both.
 */
final class StretchTest extends FeatureTestCase
{
    private User $me;

    private string $session;

    private string $issue;

    private string $capture;

    /** @var list<string> ids of observed lines, in order */
    private array $ids = [];

    protected function setUp(): void
    {
        parent::setUp();
        $this->me = $this->world->person('tess');
        Carbon::setTestNow('2026-11-30 10:00:00');
        $build = Build::query()->create(['project_id' => $this->world->project->id, 'name' => '4.2.0', 'position' => 1]);
        $folder = $this->as($this->me, 'POST', '/projects/TST/folders', ['name' => 'Booking'])
            ->assertCreated()
            ->json('id');
        $this->as($this->me, 'POST', '/projects/TST/charters', [
            'title' => 'Fares by age',
            'build_id' => $build->id,
            'folder_id' => $folder,
        ])->assertCreated();
        $this->session = (string) Str::uuid7();
        $this->as($this->me, 'POST', '/charters/TST-S1/sessions', ['id' => $this->session, 'environment' => 'Rehearsal'])->assertCreated();
        Carbon::setTestNow('2026-11-30 10:01:00');
        $this->observe([
            ['visit', ['page' => '/booking', 'reached' => 'typed']],
            ['type', ['control' => 'Age', 'value' => '15']],
            ['type', ['control' => 'Age', 'value' => '16']],
            ['press', ['control' => 'Go on']],
            ['visit', ['page' => '/pay', 'reached' => 'press']],
            ['press', ['control' => 'Rules', 'page' => '/pay']],
            ['visit', ['page' => '/rules', 'reached' => 'press']],
            ['visit', ['page' => '/pay', 'reached' => 'back']],
            ['trouble', ['words' => 'TypeError: no fare', 'page' => '/pay']],
        ]);
        Carbon::setTestNow('2026-11-30 10:02:00');
        $this->capture = (string) Str::uuid7();
        $this->as($this->me, 'POST', "/test-sessions/{$this->session}/captures", [
            'id' => $this->capture,
            'name' => 'total.png',
            'words' => 'The total',
            'file' => UploadedFile::fake()->image('total.png'),
        ])->assertCreated();
        Carbon::setTestNow('2026-11-30 10:03:00');
        $this->issue = (string) Str::uuid7();
        $this->as($this->me, 'POST', "/test-sessions/{$this->session}/lines", [
            'id' => $this->issue,
            'kind' => 'issue',
            'words' => "16 pays the child's fare. It should be the full one.",
        ])->assertCreated();
    }

    public function test_what_leads_there_is_proposed_with_why_and_a_defect_drafted(): void
    {
        $said = $this->as($this->me, 'GET', "/session-lines/{$this->issue}/stretch")->assertOk();
        self::assertSame(
            [
                'Open "/booking"',
                '- Type "15" into "Age" (entered anew right after)',
                'Type "16" into "Age"',
                'Press "Go on"',
                '= Open "/pay"',
                '- Press "Rules" (a way round that came back)',
                '- Open "/rules" (a way round that came back)',
                '- Go back to "/pay" (a way round that came back)',
                '= Trouble: TypeError: no fare',
                '= The total',
            ],
            array_map(
                static fn(array $l): string => match (true) {
                    null !== $l['why'] => "- {$l['words']} ({$l['why_words']})",
                    !$l['is_step'] => "= {$l['words']}",
                    default => $l['words'],
                },
                $said->json('lines'),
            ),
        );
        $said->assertJson([
            'charter_key' => 'TST-S1',
            'title' => "Fares by age – 16 pays the child's fare",
            'actual' => "16 pays the child's fare. It should be the full one.",
            'environment' => 'Rehearsal',
            'body' => "## Pages\n\n- /booking\n- /pay\n\n## Trouble seen\n\n- TypeError: no fare",
            'build' => ['name' => '4.2.0'],
            'before' => 0,
            'repro' => null,
        ]);
        self::assertSame([$this->capture], array_column($said->json('captures'), 'id'));
        // Begun in mid-page, the page is opened first; with the way round begun, what was before it is shown when it is asked for.
        $why = fn(string $query): array => array_column(
            (array) $this->as($this->me, 'GET', "/session-lines/{$this->issue}/stretch?{$query}")->json('lines'),
            'why',
        );
        self::assertSame([null, 'before_the_start', 'before_the_start', null], \array_slice($why("from={$this->ids[3]}"), 0, 4));
        $this->observe([['visit', ['page' => '/anew', 'reached' => 'typed']]]);
        $this->as($this->me, 'GET', "/session-lines/{$this->issue}/stretch")->assertJson([
            'before' => 10,
            'lines' => [['words' => 'Open "/anew"', 'why' => null]],
        ]);
        self::assertSame(['before_the_start', 'before_the_start', null], $why('before=2'));
    }

    public function test_it_is_kept_walked_again_and_filed_once_with_its_captures_and_a_case_beside(): void
    {
        $this->as($this->me, 'POST', '/projects/TST/routines', [
            'name' => 'Book for one',
            'steps' => [['action' => 'Open "/booking".'], ['action' => 'type “16” into "Age"']],
        ])->assertCreated();
        $steps = [
            ['line' => $this->ids[0], 'words' => 'Open "/booking"'],
            ['line' => $this->ids[2], 'words' => 'Type "16" into "Age"'],
            ['line' => null, 'words' => 'Press "Go on" twice'],
        ];
        $put = fn(User $by, array $steps, int $version) => $this->as($by, 'PUT', "/session-lines/{$this->issue}/repro", [
            'steps' => $steps,
            'version' => $version,
        ]);
        $put($this->me, [], 0)
            ->assertUnprocessable()
            ->assertJsonPath('errors.steps.0', 'Nothing is left that leads there. Keep at least one step.');
        $put($this->me, [['line' => null, 'words' => ' ']], 0)->assertUnprocessable();
        $this->as($this->me, 'POST', "/session-lines/{$this->issue}/repro/cases")
            ->assertConflict()
            ->assertJsonPath('type', 'urn:lucid-step:problem:no-steps');
        $put($this->me, $steps, 0)
            ->assertOk()
            ->assertJson(['version' => 1, 'tries' => 0]);
        $put($this->me, $steps, 0)->assertOk()->assertJsonPath('version', 1);
        $other = $this->world->person('otto');
        $put($other, [$steps[0]], 0)
            ->assertStatus(412)
            ->assertJsonPath('version', 1);
        $put($other, [$steps[0], $steps[1], $steps[2]], 1)->assertOk();
        foreach ([true, false, true] as $shown) {
            $this->as($other, 'POST', "/session-lines/{$this->issue}/repro/tries", ['shown' => $shown])->assertCreated();
        }

        $file = [
            'title' => 'Fares – 16 pays half',
            'steps' => '1. Open',
            'line_id' => $this->issue,
            'captures' => [$this->capture, $this->issue],
        ];
        $filed = $this->as($this->me, 'POST', '/projects/TST/defects', $file)->assertCreated();
        $filed->assertJson([
            'defect' => ['key' => 'TST-D1', 'build' => ['name' => '4.2.0']],
            'session' => ['charter_key' => 'TST-S1', 'number' => 1, 'tries' => 3, 'shown' => 2, 'at_ms' => 180_000, 'case_key' => null],
        ]);
        self::assertSame(['total.png'], array_column($filed->json('files'), 'name'));
        $this->as($this->me, 'POST', '/projects/TST/defects', $file)
            ->assertConflict()
            ->assertJsonPath('type', 'urn:lucid-step:problem:filed-already');
        $made = $this->as($this->me, 'POST', "/session-lines/{$this->issue}/repro/cases")->assertCreated();
        $key = (string) $made->json('case_key');
        $this->as($this->me, 'POST', "/session-lines/{$this->issue}/repro/cases")->assertConflict();
        $case = $this->as($this->me, 'GET', "/cases/{$key}")->assertOk();
        self::assertSame(
            [['', 'routine'], ['Press "Go on" twice', null]],
            array_map(static fn(array $s): array => [$s['action'], null === $s['routine'] ? null : 'routine'], $case->json('steps')),
        );
        self::assertSame("16 pays the child's fare. It should be the full one.", $case->json('steps.1.expected'));
        // All of them know of each other.
        $this->as($this->me, 'GET', '/defects/TST-D1')->assertJson(['defect' => ['case_key' => $key], 'session' => ['case_key' => $key]]);
        $this->as($this->me, 'GET', "/test-sessions/{$this->session}")
            ->assertOk()
            ->assertJson(['repros' => [['line_id' => $this->issue, 'case_key' => $key, 'defect' => ['key' => 'TST-D1']]]]);
    }

    public function test_one_that_is_known_is_linked_instead_and_the_steps_of_one_that_is_filed_are_those_that_were_kept(): void
    {
        $this->as($this->me, 'POST', '/projects/TST/defects', ['title' => 'Known'])->assertCreated();
        $link = fn(string $defect, array $body) => $this->as($this->me, 'POST', "/defects/{$defect}/links", $body);
        $link('TST-D1', [])
            ->assertUnprocessable()
            ->assertJsonStructure(['errors' => ['attempt_id']]);
        $link('TST-D1', ['line_id' => (string) Str::uuid7()])
            ->assertUnprocessable()
            ->assertJsonStructure(['errors' => ['line_id']]);
        foreach ([1, 2] as $_) {
            // Linked twice, it is there once.
            $link('TST-D1', ['line_id' => $this->issue, 'captures' => [$this->capture]])
                ->assertCreated()
                ->assertJson(['session' => ['line_id' => $this->issue]])
                ->assertJsonCount(1, 'files');
        }
        $this->as($this->me, 'POST', '/projects/TST/defects', ['title' => 'Another', 'line_id' => $this->issue])->assertConflict();
        $this->as($this->me, 'POST', '/projects/TST/defects', ['title' => 'Another'])->assertCreated();
        $link('TST-D2', ['line_id' => $this->issue])
            ->assertConflict()
            ->assertJsonPath('key', 'TST-D1');
        $reader = $this->world->person('ada', Role::Reader);
        $this->as($reader, 'POST', '/defects/TST-D1/links', ['line_id' => $this->issue])->assertForbidden();

        // Filed by whatever way, what was kept leads there.
        $this->as($this->me, 'PUT', "/session-lines/{$this->ids[8]}/repro", [
            'steps' => [['line' => null, 'words' => "Open\nthe page"], ['line' => null, 'words' => 'Press "Pay"']],
            'version' => 0,
        ])->assertOk();
        $this->as($this->me, 'POST', '/projects/TST/defects', ['title' => 'TypeError', 'line_id' => $this->ids[8]])
            ->assertCreated()
            ->assertJsonPath('steps', "1. Open\n   the page\n2. Press \"Pay\"");
    }

    public function test_where_nothing_was_observed_what_was_written_leads_there(): void
    {
        SessionLine::query()->whereIn('id', $this->ids)->delete();
        $lines = $this->as($this->me, 'GET', "/session-lines/{$this->issue}/stretch")->json('lines');
        self::assertSame(
            [['The total', true, null]],
            array_map(static fn(array $l): array => [$l['words'], $l['is_step'], $l['why']], $lines),
        );
    }

    public function test_what_is_taken_out_of_the_session_goes_from_all_that_came_of_it(): void
    {
        $line = $this->ids[2];
        $this->observe([['type', ['control' => 'Doctor', 'value' => 'GEHEIM of Ada']]]);
        $secret = (string) SessionLine::query()->where('control', 'Doctor')->value('id');
        $words = 'Type "GEHEIM of Ada" into "Doctor"';
        $this->as($this->me, 'PUT', "/session-lines/{$this->issue}/repro", [
            'steps' => [['line' => $line, 'words' => 'Type "16"'], ['line' => $secret, 'words' => $words]],
            'version' => 0,
        ])->assertOk();
        $this->as($this->me, 'POST', '/projects/TST/defects', [
            'title' => 'x',
            'steps' => "1. {$words}",
            'line_id' => $this->issue,
        ])->assertCreated();
        $admin = $this->world->person('admin', Role::Admin);
        $this->as($admin, 'POST', "/session-lines/{$secret}/removals", ['reason' => 'Private'])->assertOk();
        // An address goes from all that was done there; what was done there stays.
        $visit = (string) SessionLine::query()->where('page', '/rules')->value('id');
        $this->as($admin, 'POST', "/session-lines/{$visit}/removals", ['reason' => 'Private'])->assertOk();
        self::assertSame(0, SessionLine::query()->where('page', '/rules')->count());
        self::assertSame('Rules', SessionLine::query()->where('kind', 'press')->where('page', '/pay')->value('control'));
        foreach (['session_lines', 'session_events', 'repros', 'defects'] as $table) {
            $text = (string) DB::table($table)
                ->selectRaw("string_agg({$table}::text, '') as t")
                ->value('t');
            self::assertStringNotContainsString('GEHEIM', $text, $table);
        }
        self::assertSame('whole', $this->app->make(SessionJournal::class)->verify(TestSession::query()->findOrFail($this->session))->state);
    }

    /**
     * @param  list<array{string, array<string, string>}>  $acts
     */
    private function observe(array $acts): void
    {
        $taken = [];
        foreach ($acts as $i => [$kind, $more]) {
            $id = (string) Str::uuid7();
            $this->ids[] = $id;
            $at = now()->getTimestampMs() + $i - 100;
            $taken[] = ObservedAct::of(
                ['id' => $id, 'kind' => $kind, 'at' => $at, 'n' => $i, 'tab' => 't', 'page' => '/booking', ...$more],
                0,
            );
        }
        $session = TestSession::query()->findOrFail($this->session);
        $this->app->make(TakeObservations::class)($session, 'https://staging.example', $taken);
    }
}
