<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\Api;

use Illuminate\Http\UploadedFile;
use Illuminate\Support\Facades\Cache;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Route;
use Illuminate\Support\Str;
use LucidStep\App\Models\CaseVersion;
use LucidStep\App\Models\Entry;
use LucidStep\App\Models\TestCase;
use LucidStep\Core\Access\Role;
use LucidStep\Core\Execution\AttemptSize;
use LucidStep\Tests\Support\FeatureTestCase;

/**
 * Nobody stops the application for the others: what a request costs is bounded before the work begins, how often one may ask is
 * bounded too, and what is costly is done one at a time.
 */
final class CostTest extends FeatureTestCase
{
    public function test_axes_with_more_pairs_than_anybody_looks_through_are_refused_before_they_are(): void
    {
        $lead = $this->world->lead();
        $axes = static fn(int $axes, int $values): array => array_map(
            static fn(int $a): array => [
                'name' => "Axis {$a}",
                'values' => array_map(static fn(int $v): array => ['name' => "Value {$v}"], range(1, $values)),
            ],
            range(1, $axes),
        );
        foreach ([['PUT', 'axes'], ['POST', 'axis-checks']] as [$method, $path]) {
            $this->as($lead, $method, "/projects/TST/{$path}", ['axes' => $axes(12, 60), 'forbidden' => []])
                ->assertUnprocessable()
                ->assertJsonPath(
                    'errors.axes.0',
                    'These axes have 237,600 pairs of values; at most 5,000 can be looked through. Take fewer axes or values, or ' .
                        'several of a kind as one.',
                );
        }
        $this->as($lead, 'POST', '/projects/TST/axis-checks', ['axes' => $axes(4, 6), 'forbidden' => []])->assertOk();
    }

    /**
     * One cell in the last corner of a sheet.
     */
    public function test_a_sheet_with_something_far_outside_is_named_and_not_walked_through(): void
    {
        $lead = $this->world->lead();
        foreach (['XFD1048576', 'DR2', 'A200001'] as $cell) {
            $before = memory_get_usage();
            $this->upload($lead, self::sheet($cell))
                ->assertSuccessful()
                ->assertJsonPath('state', 'failed')
                ->assertJsonPath(
                    'problem',
                    "This sheet has something in cell {$cell}; at most 120 columns and 200,000 rows are read. Delete what stands outside " .
                        'and save it anew.',
                );
            self::assertLessThan(20_000_000, memory_get_usage() - $before);
        }
        $this->upload($lead, self::sheet('DP3'))->assertSuccessful()->assertJsonPath('state', 'ready');
    }

    public function test_a_case_of_many_steps_with_a_table_of_many_rows_enters_no_cycle_as_one_entry(): void
    {
        $lead = $this->world->lead();
        $rows = array_map(static fn(int $i): array => ['cells' => ["Person {$i}"]], range(1, 700));
        $table = $this->as($lead, 'POST', '/projects/TST/data-tables', ['name' => 'All', 'columns' => [['name' => 'who']], 'rows' => $rows])
            ->assertCreated()
            ->json('table.id');
        $steps = array_fill(0, 29, ['action' => 'Ask {{who}}', 'data' => '', 'expected' => 'Answered']);
        $case = $this->as($lead, 'POST', '/projects/TST/cases', ['title' => 'Everybody', 'steps' => $steps, 'table' => $table])
            ->assertCreated()
            ->json('case');
        $this->world->entry();
        $this->world->cycle->update(['state' => 'draft']);
        $picks = ['picks' => ['cases' => [$case['id']]]];
        $this->as($lead, 'POST', '/projects/TST/selection-counts', $picks)
            ->assertOk()
            ->assertJsonPath('entries', 0)
            ->assertJsonPath(
                'refused.0.why',
                '29 steps in 700 rounds would be 20,300 results in one attempt; at most 20,000 are walked as one. Choose fewer rows, or ' .
                    'make several entries of them.',
            );
        $ids = DB::table('data_rows')->where('table_id', $table)->orderBy('position')->limit(689)->pluck('id')->all();
        $picks['picks']['rows'] = [$case['id'] => $ids];
        $this->as($lead, 'POST', '/projects/TST/selection-counts', $picks)->assertOk()->assertJsonPath('entries', 1);
    }

    /**
     * What is refused when it is planned is refused on every other way to it; but what a device walked already is never lost.
     */
    public function test_no_other_way_begins_what_is_too_large_to_walk(): void
    {
        $me = $this->world->person();
        [$entry, $open] = [$this->world->entry($me, 2), $this->world->entry($me, 2)];
        $table = (string) Str::uuid7();
        DB::table('data_tables')->insert([
            'id' => $table,
            'project_id' => $entry->project_id,
            'name' => 'All',
            'columns' => json_encode([['name' => 'who', 'secret' => false]]),
        ]);
        $rows = array_map(
            static fn(int $i): array => ['id' => (string) Str::uuid7(), 'table_id' => $table, 'position' => $i, 'cells' => '["x"]'],
            range(1, 5000),
        );
        DB::table('data_rows')->insert($rows);
        $entry->update(['row_ids' => array_column($rows, 'id')]);
        $open->update(['row_ids' => array_column(array_slice($rows, 0, 600), 'id')]);
        CaseVersion::query()->update(['table_id' => $table]);
        // As it was planned it is not too large: five thousand rows of two steps; then it got more.
        self::assertNull(AttemptSize::tooLarge(2, 5000));
        $this->steps($entry, 5);
        $this->as($me, 'POST', "/entries/{$entry->id}/attempts")
            ->assertConflict()
            ->assertJsonPath('type', 'urn:lucid-step:problem:too-large-to-walk');
        $this->as($me, 'POST', '/cycles/TST-R1/list-verdicts', ['ids' => [$entry->id], 'verdict' => 'pass', 'note' => 'As always'])
            ->assertOk()
            ->assertJsonPath('done', [])
            ->assertJsonPath('refused.0.why', AttemptSize::tooLarge(5, 5000));
        self::assertSame([$open->id], array_column((array) $this->as($me, 'GET', '/projects/TST/walk-pack')->json('entries'), 'entry_id'));
        $this->as($me, 'POST', "/entries/{$open->id}/attempts")->assertCreated();
        $case = TestCase::query()->findOrFail($open->case_id);
        $step = ['action' => 'a', 'data' => '', 'expected' => 'b'];
        $this->as($me, 'PUT', "/cases/{$case->key}", [
            'title' => $case->title,
            'steps' => array_fill(0, 34, $step),
            'table' => $table,
            'revision' => $case->revision,
        ])->assertOk();
        $this->as($me, 'POST', "/entries/{$open->id}/versions")
            ->assertConflict()
            ->assertJsonPath('type', 'urn:lucid-step:problem:too-large-to-walk');
        self::assertSame($open->case_version_id, $open->refresh()->case_version_id);
        $walked = ['id' => (string) Str::uuid7(), 'case_version_id' => $entry->case_version_id];
        $this->as($me, 'POST', "/entries/{$entry->id}/device-attempts", $walked)->assertSuccessful();
        self::assertSame(5000, DB::table('rounds')->where('attempt_id', $walked['id'])->count());
    }

    private function steps(Entry $entry, int $count): void
    {
        $more = [];
        foreach (range(1, $count) as $at) {
            $more[] = [
                'id' => (string) Str::uuid7(),
                'case_version_id' => $entry->case_version_id,
                'position' => 100 + $at,
                'action' => 'a',
                'data' => '',
                'expected' => 'b',
            ];
        }
        DB::table('steps')->where('case_version_id', $entry->case_version_id)->delete();
        DB::table('steps')->insert($more);
    }

    public function test_a_body_that_holds_more_than_anybody_sends_is_not_decoded(): void
    {
        $lead = $this->world->lead();
        foreach (['{"name":"' . str_repeat('x', 13_000_000) . '"}', '{"names":[' . str_repeat('[],', 160_000) . '0]}'] as $body) {
            $this->actingAs($lead)
                ->call('POST', '/api/v1/projects/TST/labels', [], [], [], ['CONTENT_TYPE' => 'application/json'], $body)
                ->assertStatus(413)
                ->assertHeader('Content-Type', 'application/problem+json');
        }
    }

    public function test_who_writes_without_end_is_told_to_wait_and_others_are_not(): void
    {
        config(['lucid.limits.writes' => 5, 'lucid.limits.writes_of_address' => 8]);
        [$one, $two] = [$this->world->person('one'), $this->world->person('two')];
        $write = fn($who) => $this->as($who, 'PUT', '/projects/TST/scratch', ['text' => 'x']);
        foreach (range(4, 0) as $left) {
            $write($one)->assertOk()->assertHeader('X-RateLimit-Limit', '5')->assertHeader('X-RateLimit-Remaining', (string) $left);
        }
        $write($one)->assertStatus(429)->assertHeader('Content-Type', 'application/problem+json')->assertHeader('Retry-After');
        $this->as($one, 'GET', '/projects/TST/scratch')->assertOk();
        foreach (range(1, 3) as $n) {
            $write($two)->assertOk();
        }
        $write($two)->assertStatus(429);
        $this->travel(61)->seconds();
        $write($one)->assertOk();
    }

    public function test_what_is_costly_waits_its_turn_and_is_asked_for_so_often_only(): void
    {
        config(['lucid.limits.costly' => 3]);
        $lead = $this->world->lead();
        $ask = fn($who) => $this->as($who, 'POST', '/projects/TST/axis-checks', [
            'axes' => [['name' => 'A', 'values' => [['name' => 'b']]]],
            'forbidden' => [],
        ]);
        $ask($lead)->assertOk();
        $lock = Cache::lock("costly:{$lead->id}", 60);
        self::assertTrue($lock->get());
        $ask($lead)->assertStatus(429)->assertHeader('Retry-After', '3');
        $ask($this->world->person('other', Role::Lead))->assertOk();
        $lock->release();
        $ask($lead)->assertOk();
        $ask($lead)->assertStatus(429);
    }

    /**
     * Every write of the API passes the limits, whatever comes to it later.
     */
    public function test_every_write_is_counted(): void
    {
        $counted = 0;
        foreach (Route::getRoutes()->getRoutes() as $route) {
            if (str_starts_with($route->uri(), 'api/v1/') && [] !== array_diff($route->methods(), ['GET', 'HEAD'])) {
                $limits = array_filter(
                    $route->gatherMiddleware(),
                    static fn(mixed $m): bool => \is_string($m) && str_starts_with($m, 'throttle:'),
                );
                self::assertNotSame([], $limits, $route->uri());
                $counted++;
            }
        }
        self::assertGreaterThan(100, $counted);
    }

    /**
     * @return \Illuminate\Testing\TestResponse<\Symfony\Component\HttpFoundation\Response>
     */
    private function upload(\LucidStep\App\Models\User $user, string $path): \Illuminate\Testing\TestResponse
    {
        return $this->actingAs($user)->post(
            '/api/v1/projects/TST/case-imports',
            ['file' => new UploadedFile($path, 'cases.xlsx', null, null, true)],
            ['Accept' => 'application/json'],
        );
    }

    private static function sheet(string $cell): string
    {
        $book = new \PhpOffice\PhpSpreadsheet\Spreadsheet();
        $sheet = $book->getActiveSheet();
        $sheet->fromArray([['title', 'action', 'expected'], ['One', 'a', 'b']]);
        $sheet->setCellValue($cell, 'x');
        $path = tempnam(sys_get_temp_dir(), 'sheet') . '.xlsx';
        (new \PhpOffice\PhpSpreadsheet\Writer\Xlsx($book))->save($path);

        return $path;
    }
}
