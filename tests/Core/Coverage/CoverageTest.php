<?php

declare(strict_types=1);

namespace LucidStep\Tests\Core\Coverage;

use LucidStep\Core\Coverage\CaseCells;
use LucidStep\Core\Coverage\CoverageState;
use LucidStep\Core\Coverage\FinishedRound;
use LucidStep\Core\Coverage\Outcome;
use LucidStep\Core\Coverage\PlannedRound;
use LucidStep\Core\Coverage\RequirementNode;
use LucidStep\Core\Coverage\RequirementTree;
use LucidStep\Core\Verdict\Verdict;
use PHPUnit\Framework\TestCase;
use Random\Engine\Mt19937;
use Random\Randomizer;

/**
 * What cells, cases and requirements show (rules of the job, 2).
 */
final class CoverageTest extends TestCase
{
    public function test_the_newest_round_counts_by_the_builds_order_before_the_time(): void
    {
        $fail = self::round(Verdict::Fail, build: 2, finished: 10);
        $pass = self::round(Verdict::Pass, build: 1, finished: 99);
        self::assertSame(CoverageState::Fail, self::shown([$fail, $pass]), 'fail on build 2 and later a pass on build 1');
        self::assertSame(CoverageState::Pass, self::shown([$pass, self::round(Verdict::Fail, build: 1, finished: 98)]));
        self::assertSame(CoverageState::Fail, self::shown([self::round(Verdict::Pass, build: null, finished: 99), $fail]), 'no build');
    }

    public function test_a_cell_shows_what_its_entry_shows_of_a_retest_and_of_a_walk(): void
    {
        self::assertSame(CoverageState::Retest, self::shown([self::round(Verdict::Pass, shown: 'retest')]));
        self::assertSame(CoverageState::InProgress, self::shown([self::round(Verdict::Fail, shown: 'in_progress')]));
        // Only of the entry that the newest round belongs to.
        $older = self::round(Verdict::Fail, finished: 1, shown: 'retest');
        self::assertSame(CoverageState::Pass, self::shown([$older, self::round(Verdict::Pass, finished: 2)]));
    }

    public function test_what_is_only_planned_counts_where_nothing_is_finished(): void
    {
        $planned = new PlannedRound('c', 'phone', null, CoverageState::NotRun);
        $walked = self::round(Verdict::Pass, configuration: 'phone');
        self::assertSame(CoverageState::Pass, self::shown([$walked], [$planned]));
        self::assertSame(CoverageState::NotRun, self::shown([$walked], [new PlannedRound('c', 'desktop', null, CoverageState::NotRun)]));
        self::assertSame(
            CoverageState::InProgress,
            self::shown([], [$planned, new PlannedRound('c', 'phone', null, CoverageState::InProgress)]),
        );
        $stopped = CaseCells::of([], [new PlannedRound('c', null, null, CoverageState::Blocked)])['c'];
        self::assertEquals(new Outcome(CoverageState::Blocked, false), Outcome::ofCase($stopped), 'blocked, and not walked');
        self::assertEquals(new Outcome(CoverageState::NotRun, false), Outcome::ofCase([]), 'a linked case with no entry in scope');
    }

    public function test_each_row_and_configuration_is_a_cell_of_its_own(): void
    {
        $cells = CaseCells::of(
            [
                self::round(Verdict::Pass, row: 'r1'),
                self::round(Verdict::Blocked, row: 'r2'),
                self::round(Verdict::NotApplicable, configuration: 'phone', row: 'r1'),
            ],
            [new PlannedRound('c', null, 'r2', CoverageState::NotRun)],
        )['c'];
        self::assertCount(3, $cells);
        self::assertEquals(new Outcome(CoverageState::Blocked, true), Outcome::ofCase($cells));
    }

    public function test_a_parent_is_the_worst_of_itself_and_of_those_below(): void
    {
        $cases = [self::case('pass'), self::case('fail'), self::case('not_run'), self::case('not_applicable')];
        $tree = (new RequirementTree(
            [
                new RequirementNode('all', null, []),
                new RequirementNode('fares', 'all', [0]),
                new RequirementNode('islanders', 'fares', [0, 3]),
                new RequirementNode('tides', 'all', []),
                new RequirementNode('boarding', null, [1, 2]),
                new RequirementNode('lost', 'gone', [9]),
            ],
            $cases,
        ))->outcomes();
        self::assertSame(CoverageState::Pass, $tree['fares']->state);
        self::assertSame(['pass' => 2], $tree['fares']->counts);
        self::assertSame([2, 2], [$tree['fares']->walked, $tree['fares']->cases], 'the case that both have counts once');
        self::assertSame(CoverageState::Uncovered, $tree['all']->state);
        self::assertSame(['pass' => 2, 'uncovered' => 1], $tree['all']->counts);
        self::assertSame([CoverageState::Fail, 1, 2], [$tree['boarding']->state, $tree['boarding']->walked, $tree['boarding']->cases]);
        self::assertSame(CoverageState::NotRun, $tree['lost']->state, 'below one that is not there it stands by itself');
        $none = (new RequirementTree([new RequirementNode('a', null, []), new RequirementNode('b', 'a', [])], []))->outcomes();
        self::assertSame([CoverageState::Uncovered, ['uncovered' => 1]], [$none['a']->state, $none['a']->counts]);
    }

    public function test_nine_passes_and_one_not_run_are_not_run(): void
    {
        $cases = [...array_fill(0, 9, self::case('pass')), self::case('not_run')];
        $found = (new RequirementTree([new RequirementNode('q', null, range(0, 9))], $cases))->outcomes()['q'];
        self::assertSame([CoverageState::NotRun, 9, 10], [$found->state, $found->walked, $found->cases]);
    }

    public function test_a_loop_is_refused(): void
    {
        $this->expectException(\DomainException::class);
        new RequirementTree([new RequirementNode('a', 'b', []), new RequirementNode('b', 'a', []), new RequirementNode('c', null, [])], []);
    }

    /**
     * Over random trees: the order of what is given changes nothing; a better case never makes anything worse; counts of a parent
     * are those of the requirements below it, and nothing is worse than the worst of its cases unless something is uncovered.
     */
    public function test_rolling_up_nests_and_does_not_depend_on_order(): void
    {
        $random = new Randomizer(new Mt19937(4));
        for ($n = 0; $n < 200; $n++) {
            $states = CoverageState::cases();
            $cases = [];
            for ($i = 0; $i < 12; $i++) {
                $state = $states[$random->getInt(0, 7)];
                $cases[$i] = new Outcome(CoverageState::Uncovered === $state ? CoverageState::Pass : $state, $state->isWalked());
            }
            $nodes = [];
            for ($i = 0; $i < 15; $i++) {
                $parent = 0 === $i || 0 === $random->getInt(0, 4) ? null : 'q' . $random->getInt(0, $i - 1);
                $linked = 0 === $random->getInt(0, 2) ? [] : $random->pickArrayKeys($cases, $random->getInt(1, 4));
                $nodes[] = new RequirementNode("q{$i}", $parent, array_map(intval(...), $linked));
            }
            $tree = (new RequirementTree($nodes, $cases))->outcomes();
            $shuffled = (new RequirementTree($random->shuffleArray($nodes), $cases))->outcomes();
            foreach ($nodes as $node) {
                $found = $tree[$node->id];
                self::assertSame($found->state, $shuffled[$node->id]->state);
                self::assertEquals($found->counts, $shuffled[$node->id]->counts);
                self::assertLessThanOrEqual($found->cases, $found->walked);
                self::assertSame(
                    $found->state->value,
                    CoverageState::worst(array_map(CoverageState::from(...), array_keys($found->counts)))?->value,
                );
                if (null !== $node->parent) {
                    self::assertLessThanOrEqual($found->state->rank(), $tree[$node->parent]->state->rank());
                    self::assertLessThanOrEqual($tree[$node->parent]->cases, $found->cases);
                }
            }
            // One case passes now.
            $one = $random->getInt(0, 11);
            $better = (new RequirementTree($nodes, [...$cases, $one => new Outcome(CoverageState::NotApplicable, true)]))->outcomes();
            foreach ($nodes as $node) {
                self::assertGreaterThanOrEqual($tree[$node->id]->state->rank(), $better[$node->id]->state->rank());
            }
        }
    }

    private static function case(string $state): Outcome
    {
        return new Outcome(CoverageState::from($state), CoverageState::from($state)->isWalked());
    }

    /**
     * @param  list<FinishedRound>  $finished
     * @param  list<PlannedRound>  $planned
     */
    private static function shown(array $finished, array $planned = []): CoverageState
    {
        return Outcome::ofCase(CaseCells::of($finished, $planned)['c'] ?? [])->state;
    }

    private static function round(
        Verdict $verdict,
        ?string $configuration = null,
        ?string $row = null,
        ?int $build = 1,
        int $finished = 5,
        string $shown = '',
    ): FinishedRound {
        return new FinishedRound('c', $configuration, $row, $build, $finished, $verdict, '' === $shown ? $verdict->value : $shown);
    }
}
