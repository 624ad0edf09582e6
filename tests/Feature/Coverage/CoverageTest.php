<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\Coverage;

use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Coverage\Queries\CoverageLens;
use LucidStep\App\Models\Cycle;
use LucidStep\App\Models\TestCase;
use LucidStep\App\Models\User;
use LucidStep\Core\Access\Role;
use LucidStep\Tests\Support\CoverageFromScratch;
use LucidStep\Tests\Support\CoverageTestCase;

/**
 * What is proven of requirements: through each lens the same as the rules say from scratch, however it came about.
 */
final class CoverageTest extends CoverageTestCase
{
    public function test_the_tree_says_what_is_proven_and_what_it_counts(): void
    {
        $all = $this->requirement('A journey can be booked');
        $fares = $this->requirement('Fares', $all);
        $this->requirement('Nobody thought of it', $all);
        $walked = $this->linked([$fares]);
        $waits = $this->linked([$fares]);
        $this->finished($walked, $this->lead);
        $rows = $this->rows();
        self::assertSame(['not_run', 2, 1, 2], $this->told($rows['Fares']));
        self::assertSame(['not_run', 2, 1, 0], $this->told($rows['A journey can be booked']));
        self::assertSame(['uncovered', 0, 0, 0], $this->told($rows['Nobody thought of it']));
        self::assertSame(
            [['state' => 'not_run', 'count' => 1], ['state' => 'pass', 'count' => 1]],
            $rows['A journey can be booked']['case_counts'],
        );
        $this->finished($waits, $this->lead, 'fail');
        $whole = $this->as($this->lead, 'GET', '/projects/TST/coverage')->assertOk();
        $whole
            ->assertJsonPath('counts.0', ['state' => 'fail', 'count' => 1])
            ->assertJsonPath('cases', 2)
            ->assertJsonPath('walked', 2);
        $this->as($this->lead, 'POST', "/entries/{$waits->id}/retests", ['reason' => 'Fixed, they say'])->assertCreated();
        self::assertSame('retest', $this->rows()['Fares']['state']);
        // Who waits in a plan that is not released yet, or was given up, is no plan of the case.
        $cycle = Cycle::query()->whereKey($walked->cycle_id);
        $planned = $this->linked([$fares]);
        foreach (['released' => 3, 'closed' => 3, 'draft' => 2, 'in_review' => 2, 'abandoned' => 2] as $state => $counted) {
            $cycle->update(['state' => $state]);
            $shown = $this->as($this->lead, 'GET', "/requirements/{$fares}")->json('cases.*.cells');
            self::assertSame($counted, array_sum($shown), $state);
        }
        $cycle->update(['state' => 'released']);
        DB::table('case_requirements')->where('case_id', $planned->case_id)->delete();
        TestCase::query()
            ->whereKey($waits->case_id)
            ->update(['state' => 'retired']);
        self::assertSame(['pass', 1, 1, 1], $this->told($this->rows()['Fares']), 'what is retired counts for nothing');
        $this->as($this->lead, 'GET', '/projects/TST/coverage?build=nonsense')->assertUnprocessable();
    }

    public function test_nothing_there_is_said_as_nothing(): void
    {
        $this->as($this->lead, 'GET', '/projects/TST/coverage')
            ->assertOk()
            ->assertJsonPath('counts', [])
            ->assertJsonPath('rows', [])
            ->assertJsonPath('cases', 0);
    }

    public function test_what_is_kept_a_moment_is_packed_and_requirements_and_links_are_there_at_once(): void
    {
        config(['lucid.coverage.hold_seconds' => 3]);
        $need = $this->requirement('Fares');
        $entry = $this->linked([$need]);
        self::assertSame('not_run', $this->rows()['Fares']['state']);
        $this->finished($entry, $this->lead);
        self::assertSame('not_run', $this->rows()['Fares']['state'], 'a moment ago');
        $this->requirement('Tides');
        self::assertSame(['Fares', 'Tides'], array_keys($this->rows()), 'who writes sees it');
        self::assertSame('pass', $this->rows()['Fares']['state'], 'and all that was walked before');
        DB::table('case_requirements')->where('requirement_id', $need)->delete();
        self::assertSame('uncovered', $this->rows()['Fares']['state'], 'parted, whoever does it');
        $packed = $this->actingAs($this->lead)->get('/api/v1/projects/TST/coverage', ['Accept-Encoding' => 'gzip']);
        self::assertSame('gzip', $packed->headers->get('Content-Encoding'));
        self::assertStringContainsString('"Fares"', (string) gzdecode((string) $packed->getContent()));
    }

    public function test_who_may_not_see_defects_is_told_of_none(): void
    {
        $need = $this->requirement('Fares');
        $entry = $this->linked([$need]);
        $attempt = $this->finished($entry, $this->lead, 'fail');
        $this->as($this->lead, 'POST', '/projects/TST/defects', [
            'title' => 'Wrong',
            'severity' => 'minor',
            'attempt_id' => $attempt,
            'step' => 1,
        ])->assertCreated();
        $reader = $this->world->person('reader', Role::Reader);
        $this->world->project->update(['access' => ['readers_see_evidence' => false]]);
        $of = fn(User $who): array => [
            $this->as($who, 'GET', '/projects/TST/coverage')->assertOk()->json('rows.0.open_defects'),
            $this->as($who, 'GET', "/requirements/{$need}")
                ->assertOk()
                ->json('cases.0.open_defects'),
        ];
        self::assertSame([1, 1], $of($this->lead));
        self::assertSame([0, 0], $of($reader));
    }

    public function test_a_lens_asks_of_a_release_a_build_a_configuration_or_a_milestone(): void
    {
        $need = $this->requirement('Fares');
        $entry = $this->linked([$need]);
        $this->finished($entry, $this->lead, 'fail');
        $later = $this->elsewhere($entry, $this->newer, $this->phone);
        $this->finished($later, $this->lead);
        $state = fn(string $lens): array => $this->told($this->rows($lens)['Fares']);
        self::assertSame(['fail', 1, 1, 1], $state(''), 'two configurations, one of them failing');
        self::assertSame(['pass', 1, 1, 1], $state("build={$this->newer->id}"));
        self::assertSame(['pass', 1, 1, 1], $state("release={$this->release->id}"));
        self::assertSame(['pass', 1, 1, 1], $state("configuration={$this->phone->id}"));
        self::assertSame(['fail', 1, 1, 1], $state("build={$this->world->build->id}"));
        self::assertSame(['pass', 1, 1, 1], $state("milestone={$this->milestone->id}"));
        self::assertSame(['not_run', 1, 0, 1], $state("build={$this->world->build->id}&configuration={$this->phone->id}"));
        // The cycle goes to no milestone: what was kept of it goes along.
        Cycle::query()
            ->whereKey($later->cycle_id)
            ->update(['milestone_id' => null]);
        self::assertSame(['not_run', 1, 0, 1], $state("milestone={$this->milestone->id}"));
        $this->everyLens('after the milestone');
    }

    /**
     * Random entries of a few cases over builds, configurations and data rows, walked, judged from the list, corrected: through every lens
     * what is kept equals the rules.
     */
    public function test_whatever_is_walked_each_lens_equals_the_rules_from_scratch(): void
    {
        mt_srand(7);
        $need = $this->requirement('Fares');
        $entries = [$this->linked([$need]), $this->linked([$need]), $this->withRows($this->lead, [['isla', '3'], ['rory', '4']])];
        foreach ($entries as $entry) {
            $build = [$this->world->build, $this->newer][mt_rand(0, 1)];
            $entries[] = $this->elsewhere($entry, $build, [$this->phone, null][mt_rand(0, 1)], [$this->milestone, null][mt_rand(0, 1)]);
        }
        for ($n = 1; $n <= 24; $n++) {
            $entry = $entries[mt_rand(0, 5)]->refresh();
            $attempt = $entry->open_attempt_id ?? $entry->last_attempt_id;
            $verdict = ['pass', 'fail', 'blocked'][mt_rand(0, 2)];
            $reason = 'blocked' === $verdict ? 'Data missing' : '';
            match (mt_rand(0, 4)) {
                0, 1 => $this->as($this->lead, 'POST', "/cycles/{$entry->cycle->key}/list-verdicts", [
                    'ids' => [$entry->id],
                    'verdict' => $verdict,
                    'note' => 'Seen it all before',
                    'reason' => $reason,
                ]),
                2 => $this->as($this->lead, 'POST', "/entries/{$entry->id}/attempts", ['again' => true]),
                3 => null === $attempt
                    ? null
                    : $this->send($this->lead, $attempt, 1, 1, $verdict, ['happened' => 'It broke', 'reason' => $reason]),
                default => null === $attempt
                    ? null
                    : $this->as($this->lead, 'POST', "/attempts/{$attempt}/finish", ['verdict' => $verdict, 'note' => 'A word']),
            };
            $this->everyLens("after {$n}");
        }
        self::assertGreaterThan(4, DB::table('coverage_cells')->count());
    }

    private function everyLens(string $when): void
    {
        foreach (
            [
                new CoverageLens(),
                new CoverageLens(build: $this->newer->id),
                new CoverageLens(release: $this->release->id),
                new CoverageLens(configuration: $this->phone->id),
                new CoverageLens(milestone: $this->milestone->id),
                new CoverageLens(build: $this->world->build->id, milestone: $this->milestone->id),
            ]
            as $i => $lens
        ) {
            CoverageFromScratch::equalsWhatIsKept($this->world->project, $lens, "{$when}, lens {$i}");
        }
    }
}
