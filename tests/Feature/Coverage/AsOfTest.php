<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\Coverage;

use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Coverage\Queries\CoverageCounts;
use LucidStep\App\Areas\Coverage\Queries\CoverageLens;
use LucidStep\App\Areas\Coverage\Queries\ReadCoverage;
use LucidStep\App\Models\Build;
use LucidStep\App\Models\Cycle;
use LucidStep\App\Models\Entry;
use LucidStep\App\Models\Requirement;
use LucidStep\App\Models\TestCase;
use LucidStep\Tests\Support\CoverageTestCase;
use PHPUnit\Framework\Attributes\TestWith;

/**
 * What was proven at a moment of the past, on each build, and day by day.
 */
final class AsOfTest extends CoverageTestCase
{
    protected function tearDown(): void
    {
        Carbon::setTestNow();
        parent::tearDown();
    }

    /**
     * Whatever happens to requirements, links, cases, plans, walks, builds and defects: asked afterwards, each moment is as it was seen.
     */
    #[TestWith([1])]
    #[TestWith([2])]
    #[TestWith([3])]
    public function test_asked_afterwards_each_moment_is_as_it_was_seen_then(int $seed): void
    {
        mt_srand($seed);
        Carbon::setTestNow('2026-12-01 08:00:00');
        $top = $this->requirement('A journey can be booked');
        $needs = [$top, $this->requirement('Fares', $top), $this->requirement('Bikes', $top), $this->requirement('Tides')];
        $entries = [
            $this->linked([$needs[1]]),
            $this->linked([$needs[1], $needs[2]]),
            $this->withRows($this->lead, [['isla', '3'], ['rory', '4']]),
        ];
        foreach ($entries as $i => $entry) {
            $entries[] = $this->elsewhere($entry, [$this->world->build, $this->newer][$i % 2], $this->phone, $this->milestone);
        }
        $seen = [];
        $did = [];
        for ($n = 1; $n <= 90; $n++) {
            Carbon::setTestNow(Carbon::now()->addMinutes(47));
            $did[$n] = $this->act($needs, $entries);
            $seen[$n] = [Carbon::now()->addMinute()->format('Y-m-d H:i:s.uP'), $this->trees(null)];
        }
        self::assertGreaterThan(10, \count(array_unique($did)), 'all sorts of things happened');
        $differ = \count(array_unique(array_map(static fn(array $s): string => serialize($s[1]), $seen)));
        self::assertGreaterThan(15, $differ, 'and were seen');
        foreach ($seen as $n => [$moment, $trees]) {
            self::assertSame($trees, $this->trees($moment), "seed {$seed}, after {$n}: {$did[$n]}");
        }
    }

    public function test_a_day_is_asked_of_in_the_zone_of_the_project(): void
    {
        $this->world->project->update(['time_zone' => 'Pacific/Auckland']);
        Carbon::setTestNow('2026-11-29 09:00:00');
        $need = $this->requirement('Fares');
        $entry = $this->linked([$need]);
        // At half past noon there the day before is over for an hour and a half in Auckland.
        Carbon::setTestNow('2026-11-30 10:30:00');
        $attempt = $this->finished($entry, $this->lead);
        $defect = ['title' => 'Wrong', 'severity' => 'minor', 'attempt_id' => $attempt, 'step' => 1];
        $this->as($this->lead, 'POST', '/projects/TST/defects', $defect)->assertCreated();
        Carbon::setTestNow('2026-11-30 12:30:00');
        $this->as($this->lead, 'POST', '/defects/TST-D1/moves', ['state' => 'closed', 'note' => 'So it is'])->assertOk();
        $entry = $this->as($this->lead, 'POST', "/entries/{$entry->id}/retests", ['reason' => 'Another build']);
        $entry->assertCreated();
        $state = fn(string $day): array => $this->told($this->rows("as_of={$day}")['Fares']);
        self::assertSame(['retest', 1, 1, 1], $state(''));
        self::assertSame(['retest', 1, 1, 1], $state('2026-12-01'), 'today is now');
        self::assertSame(['pass', 1, 1, 1], $state('2026-11-30'));
        self::assertSame(['not_run', 1, 0, 1], $state('2026-11-29'));
        self::assertSame([], $this->rows('as_of=2026-11-28'), 'nothing was required');
        $whole = $this->as($this->lead, 'GET', '/projects/TST/coverage?as_of=2026-11-30')->assertOk();
        $whole->assertJsonPath('as_of', '2026-11-30T11:00:00Z');
        $one = $this->as($this->lead, 'GET', "/requirements/{$need}?as_of=2026-11-29")->assertOk();
        $one->assertJsonPath('cases.0.state', 'not_run')->assertJsonPath('cases.0.cells', 1)->assertJsonPath('cases.0.open_defects', 0);
        foreach (['2026-11-30' => 1, '2026-12-01' => 0] as $day => $open) {
            $of = $this->as($this->lead, 'GET', "/requirements/{$need}?as_of={$day}");
            $of->assertJsonPath('cases.0.open_defects', $open);
            self::assertSame($open, $this->rows("as_of={$day}")['Fares']['open_defects'], $day);
        }
        $refused = ['2026-12-02' => 'This day is still to come.', '2026-13-01' => null, 'yesterday' => null];
        foreach ($refused as $day => $why) {
            $answer = $this->as($this->lead, 'GET', "/projects/TST/coverage?as_of={$day}")->assertUnprocessable();
            self::assertSame($why ?? $answer->json('errors.as_of.0'), $answer->json('errors.as_of.0'));
        }
    }

    public function test_each_column_of_the_grid_is_the_tree_through_it(): void
    {
        $top = $this->requirement('A journey can be booked');
        $fares = $this->requirement('Fares', $top);
        $this->requirement('Nobody thought of it', $top);
        $this->requirement('Alone');
        $first = $this->linked([$fares]);
        $second = $this->linked([$fares, $top]);
        $this->finished($first, $this->lead, 'fail');
        $this->finished($this->elsewhere($first, $this->newer, $this->phone), $this->lead);
        $this->elsewhere($second, $this->newer, null);
        $lenses = ['', "&milestone={$this->milestone->id}", '&as_of=' . date('Y-m-d'), "&release={$this->release->id}"];
        foreach (['build' => [$this->world->build->name, '2.0'], 'configuration' => ['Phone']] as $by => $names) {
            foreach ($lenses as $lens) {
                $grid = $this->as($this->lead, 'GET', "/projects/TST/coverage/grid?by={$by}{$lens}")->assertOk();
                $through = str_contains($lens, 'release') && 'build' === $by ? ['2.0'] : $names;
                self::assertSame($through, array_column((array) $grid->json('columns'), 'name'));
                foreach ((array) $grid->json('columns') as $i => $column) {
                    $tree = array_column($this->rows("{$by}={$column['id']}{$lens}"), 'state', 'id');
                    $rows = array_column((array) $grid->json('rows'), null, 'id');
                    $shown = array_map(static fn(array $r): string => $r['states'][$i], $rows);
                    self::assertSame($tree, $shown, "{$by} {$column['name']} {$lens}");
                }
            }
        }
        $of = array_column((array) $this->as($this->lead, 'GET', '/projects/TST/coverage/grid')->json('rows'), 'states', 'title');
        self::assertSame(['fail', 'not_run'], $of['A journey can be booked']);
        self::assertSame(['fail', 'not_run'], $of['Fares']);
        self::assertSame(['uncovered', 'uncovered'], $of['Alone']);
        $this->as($this->lead, 'GET', '/projects/TST/coverage/grid?by=person')->assertJsonValidationErrorFor('by');
    }

    public function test_the_trend_says_each_day_as_it_was_and_ends_with_now(): void
    {
        Carbon::setTestNow('2026-12-01 10:00:00');
        $fares = $this->requirement('Fares');
        $tides = $this->requirement('Tides');
        $entry = $this->linked([$fares]);
        Carbon::setTestNow('2026-12-03 10:00:00');
        $this->finished($entry, $this->lead);
        $late = $this->linked([$tides]);
        Carbon::setTestNow('2026-12-05 10:00:00');
        $trend = $this->as($this->lead, 'GET', '/projects/TST/coverage/trend?days=7')->assertOk()->assertJsonPath('missing', 0);
        $told = fn(array $p): array => [$p['day'], array_column($p['counts'], 'count', 'state'), $p['cases'], $p['walked']];
        self::assertSame(
            [
                ['2026-12-01', ['not_run' => 1, 'uncovered' => 1], 1, 0],
                ['2026-12-02', ['not_run' => 1, 'uncovered' => 1], 1, 0],
                ['2026-12-03', ['not_run' => 1, 'pass' => 1], 2, 1],
                ['2026-12-04', ['not_run' => 1, 'pass' => 1], 2, 1],
                ['2026-12-05', ['not_run' => 1, 'pass' => 1], 2, 1],
            ],
            array_map($told, (array) $trend->json('points')),
        );
        // What is walked today changes today alone.
        $this->finished($late, $this->lead, 'fail');
        $again = $this->as($this->lead, 'GET', '/projects/TST/coverage/trend?days=7')->assertOk();
        self::assertSame(\array_slice((array) $trend->json('points'), 0, 4), \array_slice((array) $again->json('points'), 0, 4));
        self::assertSame(['fail' => 1, 'pass' => 1], array_column($again->json('points.4.counts'), 'count', 'state'));
        // A request that may not take long counts one day, and the next one goes on; what is not whole is not kept.
        config(['lucid.coverage.count_seconds' => 0, 'lucid.coverage.hold_seconds' => 3]);
        $missing = fn(): int => (int) $this->as($this->lead, 'GET', '/projects/TST/coverage/trend?days=8&build=' . $this->newer->id)
            ->assertOk()
            ->json('missing');
        self::assertSame([3, 2, 1, 0, 0], [$missing(), $missing(), $missing(), $missing(), $missing()]);
        foreach (['days=3', 'days=400', 'days=many'] as $wrong) {
            $this->as($this->lead, 'GET', "/projects/TST/coverage/trend?{$wrong}")->assertJsonValidationErrorFor('days');
        }
    }

    public function test_unsteady_is_what_changes_on_one_build(): void
    {
        $need = $this->requirement('Fares');
        $shakes = $this->linked([$need]);
        $mended = $this->linked([$need]);
        foreach (['pass', 'fail', 'pass'] as $verdict) {
            $this->finished($shakes, $this->lead, $verdict);
        }
        $this->finished($mended, $this->lead, 'fail');
        $this->finished($this->elsewhere($mended, $this->newer, null), $this->lead);
        self::assertSame(1, $this->rows()['Fares']['unsteady']);
        self::assertSame(0, $this->rows("build={$this->newer->id}")['Fares']['unsteady']);
        $cases = $this->as($this->lead, 'GET', "/requirements/{$need}")
            ->assertOk()
            ->json('cases');
        self::assertSame([true, false], array_column($cases, 'unsteady'));
    }

    /**
     * @return list<mixed> what the page says through some lenses, but for what nobody knows of the past
     */
    private function trees(?string $moment): array
    {
        $lenses = [
            new CoverageLens(at: $moment),
            new CoverageLens(build: $this->newer->id, at: $moment),
            new CoverageLens(configuration: $this->phone->id, at: $moment),
            new CoverageLens(milestone: $this->milestone->id, at: $moment),
        ];

        return array_map(function (CoverageLens $lens): array {
            $tree = json_decode((string) json_encode((new ReadCoverage())($this->world->project, $lens)), true);
            $rows = array_map(static fn(array $r): array => array_diff_key($r, ['to_look_at' => 0]), $tree['rows']);
            $numbers = CoverageCounts::of($this->world->project->id, $lens);
            $counts = array_column($tree['counts'], 'count', 'state');
            self::assertEquals([$counts, $tree['cases'], $tree['walked']], [$numbers->counts, $numbers->cases, $numbers->walked]);

            return [$tree['counts'], $tree['cases'], $tree['walked'], $rows];
        }, $lenses);
    }

    /**
     * @param  list<string>  $needs ids
     * @param  list<Entry>  $entries
     *
     * @return string what was done
     */
    private function act(array $needs, array $entries): string
    {
        $entry = $entries[mt_rand(0, 5)]->refresh();
        $need = $needs[mt_rand(0, 3)];
        $attempt = $entry->open_attempt_id ?? $entry->last_attempt_id;
        $verdict = ['pass', 'fail', 'blocked'][mt_rand(0, 2)];
        $said = ['happened' => 'It broke', 'reason' => 'blocked' === $verdict ? 'Data missing' : ''];
        $link = ['case_id' => $entry->case_id, 'requirement_id' => $need];
        $what = mt_rand(0, 16);
        match ($what) {
            0, 1 => $this->as($this->lead, 'POST', "/cycles/{$entry->cycle->key}/list-verdicts", [
                'ids' => [$entry->id],
                'verdict' => $verdict,
                'note' => 'Seen it all before',
                ...$said,
            ]),
            2 => $this->as($this->lead, 'POST', "/entries/{$entry->id}/attempts", ['again' => true]),
            3, 4 => null === $attempt ? null : $this->send($this->lead, $attempt, 1, mt_rand(1, 3), $verdict, $said),
            5 => null === $attempt
                ? null
                : $this->as($this->lead, 'POST', "/attempts/{$attempt}/finish", ['verdict' => $verdict, 'note' => 'A word']),
            6 => $this->as($this->lead, 'POST', "/entries/{$entry->id}/retests", ['reason' => 'Fixed, they say']),
            7, 8 => DB::table('case_requirements')->insertOrIgnore($link),
            9 => DB::table('case_requirements')->where($link)->delete(),
            10 => $this->as($this->lead, 'POST', "/requirements/{$need}/moves", ['parent_id' => $needs[mt_rand(0, 3)]]),
            11 => null === Requirement::query()->findOrFail($need)->dropped_at
                ? $this->as($this->lead, 'DELETE', "/requirements/{$need}")
                : $this->as($this->lead, 'POST', "/requirements/{$need}/restorations"),
            12 => TestCase::query()
                ->whereKey($entry->case_id)
                ->update(['state' => 0 === mt_rand(0, 2) ? 'retired' : 'approved']),
            13 => Build::query()
                ->whereKey($this->newer->id)
                ->update(['position' => mt_rand(0, 3)]),
            14 => null === $attempt
                ? null
                : $this->as($this->lead, 'POST', '/projects/TST/defects', [
                    'title' => 'Wrong',
                    'severity' => 'minor',
                    'attempt_id' => $attempt,
                    'step' => 1,
                ]),
            15 => $this->as($this->lead, 'POST', '/defects/TST-D1/moves', [
                'state' => ['closed', 'reopened'][mt_rand(0, 1)],
                'note' => 'So it is',
            ]),
            default => Cycle::query()
                ->whereKey($entry->cycle_id)
                ->update([
                    'state' => ['draft', 'in_review', 'abandoned', 'closed'][mt_rand(0, 15)] ?? 'released',
                ]),
        };

        return "act {$what}";
    }
}
