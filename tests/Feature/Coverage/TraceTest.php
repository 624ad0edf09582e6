<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\Coverage;

use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use LucidStep\App\Areas\Coverage\Data\TraceKind;
use LucidStep\App\Areas\Coverage\Data\TraceRow;
use LucidStep\App\Areas\Coverage\Queries\ReadTrace;
use LucidStep\App\Models\Cycle;
use LucidStep\App\Models\Defect;
use LucidStep\App\Models\Entry;
use LucidStep\Core\Access\Role;
use LucidStep\Tests\Support\CoverageTestCase;
use LucidStep\Tests\Support\World;
use PHPUnit\Framework\Attributes\DataProvider;

/**
 * From any thing to all it is tied to: requirement, case, entry, attempt, step, defect, evidence.
 */
final class TraceTest extends CoverageTestCase
{
    private string $need;

    private Entry $entry;

    private string $attempt;

    private string $evidence;

    protected function setUp(): void
    {
        parent::setUp();
        $top = $this->requirement('A journey can be booked');
        $this->need = $this->requirement('Fares', $top);
        $this->requirement('Nobody thought of it', $top);
        $this->entry = $this->linked([$this->need]);
        $this->attempt = $this->walked($this->entry, $this->lead);
        $this->judge($this->lead, $this->attempt, 1, 1, 'pass');
        $this->judge($this->lead, $this->attempt, 1, 2, 'fail', ['happened' => 'It showed 45 €']);
        $this->evidence = (string) $this->upload($this->lead, $this->attempt, self::png(20, 20), [
            'step' => '2',
            'round' => '1',
            'counter' => '9',
            'source' => 'paste',
        ])
            ->assertCreated()
            ->json('evidence.id');
        $this->as($this->lead, 'POST', '/projects/TST/defects', [
            'title' => 'A child pays too much',
            'severity' => 'minor',
            'attempt_id' => $this->attempt,
            'step' => 2,
        ])->assertCreated();
        // Another case of nothing of this.
        $this->finished($this->linked([]), $this->lead);
    }

    /**
     * @return array<string, array{string, \Closure(self): string}>
     */
    public static function beginnings(): array
    {
        return [
            'the requirement' => ['requirement', static fn(self $t): string => $t->need],
            'one above it, by its key' => ['requirement', static fn(): string => 'tst-q1'],
            'the case' => ['case', static fn(self $t): string => (string) $t->entry->case->key],
            'the cycle' => ['cycle', static fn(self $t): string => $t->entry->cycle->key],
            'the entry' => ['entry', static fn(self $t): string => $t->entry->id],
            'the attempt' => ['attempt', static fn(self $t): string => $t->attempt],
            'the defect' => ['defect', static fn(): string => 'TST-D1'],
            'the picture' => ['evidence', static fn(self $t): string => $t->evidence],
        ];
    }

    /**
     * @param  \Closure(self): string  $id
     */
    #[DataProvider('beginnings')]
    public function test_each_thing_leads_to_the_same_way(string $kind, \Closure $id): void
    {
        $trace = $this->as($this->lead, 'GET', "/projects/TST/trace?kind={$kind}&id=" . $id($this))->assertOk();
        $failed = array_values(array_filter((array) $trace->json('rows'), static fn(array $r): bool => 2 === $r['step']));
        self::assertCount(1, $failed);
        [$row] = $failed;
        self::assertSame(['TST-Q2', 'Fares'], [$row['requirement']['key'], $row['requirement']['title']]);
        self::assertSame($this->entry->case->key, $row['case']['key']);
        self::assertSame([$this->entry->id, 'in_progress'], [$row['entry']['id'], $row['entry']['state']]);
        self::assertSame([$this->attempt, 'open'], [$row['attempt']['id'], $row['attempt']['state']]);
        self::assertSame([1, 'fail'], [$row['round'], $row['step_verdict']]);
        self::assertSame(['TST-D1'], array_column($row['defects'], 'key'));
        self::assertSame([$this->evidence], array_column($row['evidence'], 'id'));
        $alone = array_filter((array) $trace->json('rows'), static fn(array $r): bool => null === $r['case']);
        self::assertCount('tst-q1' === $id($this) ? 2 : 0, $alone, 'what no case shows, itself included');
    }

    public function test_who_may_not_know_of_plans_defects_or_evidence_is_told_of_none(): void
    {
        $reader = $this->world->person('reader', Role::Reader);
        $this->world->project->update(['access' => ['readers_see_evidence' => false]]);
        $of = fn(string $kind, string $id) => $this->as($reader, 'GET', "/projects/TST/trace?kind={$kind}&id={$id}");
        $row = $of('requirement', $this->need)->assertOk()->assertJsonPath('whole', false)->json('rows.0');
        self::assertSame(['fail', [], []], [$row['step_verdict'], $row['defects'], $row['evidence']]);
        $of('defect', 'TST-D1')->assertNotFound();
        $of('evidence', $this->evidence)->assertNotFound();
        $planned = $this->elsewhere($this->entry, $this->newer, null);
        Cycle::query()
            ->whereKey($planned->cycle_id)
            ->update(['state' => 'draft']);
        $of('entry', $planned->id)->assertNotFound();
        $of('cycle', $planned->cycle->key)->assertNotFound();
        $entries = fn($who): array => array_unique(
            $this->as($who, 'GET', "/projects/TST/trace?kind=requirement&id={$this->need}")->json('rows.*.entry.id'),
        );
        self::assertCount(1, $entries($reader));
        self::assertCount(2, $entries($this->lead));
        $this->as((new World('OTH'))->lead(), 'GET', "/projects/TST/trace?kind=case&id={$this->entry->case_id}")->assertNotFound();
    }

    public function test_a_session_leads_to_what_came_of_it_and_a_requirement_to_the_sessions_that_explored_it(): void
    {
        $charter = $this->as($this->lead, 'POST', '/projects/TST/charters', ['title' => 'Groups', 'requirement_id' => $this->need])
            ->assertCreated()
            ->json('charter.key');
        $session = $this->as($this->lead, 'POST', "/charters/{$charter}/sessions", ['id' => (string) Str::uuid7()]);
        $session = (string) $session->assertSuccessful()->json('id');
        $line = (string) Str::uuid7();
        $log = ['id' => $line, 'project_id' => $this->world->project->id, 'session_id' => $session, 'number' => 1, 'kind' => 'issue'];
        DB::table('session_lines')->insert([
            ...$log,
            'at_ms' => 1,
            'counter' => 1,
            'words' => 'Wrong',
            'done_at' => now(),
            'created_at' => now(),
        ]);
        DB::table('repros')->insert([
            'line_id' => $line,
            'project_id' => $this->world->project->id,
            'session_id' => $session,
            'steps' => '[]',
            'saved_by_id' => $this->lead->id,
            'case_id' => $this->entry->case_id,
            'defect_id' => Defect::query()->where('key', 'TST-D1')->value('id'),
            'created_at' => now(),
            'updated_at' => now(),
        ]);
        foreach (
            ['requirement' => $this->need, 'case' => $this->entry->case_id, 'defect' => 'TST-D1', 'session' => $charter]
            as $kind => $id
        ) {
            $trace = $this->as($this->lead, 'GET', "/projects/TST/trace?kind={$kind}&id={$id}")->assertOk();
            $trace->assertJsonPath('sessions.0.charter.key', $charter)->assertJsonPath('sessions.0.requirement.key', 'TST-Q2');
            self::assertSame(['TST-D1'], array_column((array) $trace->json('sessions.0.defects'), 'key'), $kind);
            self::assertSame([$this->entry->case_id], array_column((array) $trace->json('sessions.0.cases'), 'id'), $kind);
            self::assertContains('TST-D1', (array) $trace->json('rows.*.defects.*.key'), $kind);
        }
    }

    public function test_nonsense_is_refused_by_field_and_what_is_not_there_is_not_found(): void
    {
        $of = fn(string $query) => $this->as($this->lead, 'GET', "/projects/TST/trace?{$query}");
        $of('kind=person&id=x')->assertJsonValidationErrorFor('kind');
        $of('kind=case')->assertJsonValidationErrorFor('id');
        $of('kind=case&id=TST-C999')->assertNotFound();
        $of('kind=entry&id=TST-C1')->assertNotFound();
        $of('kind=attempt&id=01890000-0000-7000-8000-000000000000')->assertNotFound();
    }

    public function test_the_sheet_has_every_way_and_runs_no_formula(): void
    {
        $text = ['title' => '=1+1', 'text' => '', 'external_id' => null, 'revision' => 1];
        $this->as($this->lead, 'PUT', "/requirements/{$this->need}", $text)->assertOk();
        $sheet = $this->as($this->lead, 'GET', "/projects/TST/trace-export?kind=requirement&id={$this->need}")->assertOk();
        self::assertStringContainsString('text/csv', (string) $sheet->headers->get('Content-Type'));
        $lines = explode("\r\n", trim((string) $sheet->getContent()));
        self::assertCount(2, $lines);
        self::assertStringContainsString("TST-Q2,'=1+1", $lines[1]);
        self::assertStringContainsString('TST-D1 A child pays too much (new)', $lines[1]);
    }

    public function test_part_by_part_it_is_the_same(): void
    {
        foreach ([1, 2, 3] as $n) {
            $this->elsewhere($this->entry, $n % 2 ? $this->newer : $this->world->build, null);
        }
        $read = new ReadTrace();
        $project = $this->world->project;
        $whole = $read($project, TraceKind::Requirement, 'TST-Q1', true, true);
        self::assertGreaterThan(4, \count($whole->rows));
        foreach ([1, 2, 4] as $window) {
            $parts = iterator_to_array($read->parts($project, TraceKind::Requirement, 'TST-Q1', true, true, $window));
            self::assertCount((int) ceil(\count($whole->rows) / $window), $parts);
            $of = static fn(TraceRow $r): array => [$r->requirement?->key, $r->case?->key, $r->entry?->id, $r->attempt?->id, $r->step];
            $rows = array_merge(...array_column($parts, 'rows'));
            self::assertSame(array_map($of, $whole->rows), array_map($of, $rows), "window {$window}");
        }
    }
}
