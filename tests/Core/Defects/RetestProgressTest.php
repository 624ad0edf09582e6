<?php

declare(strict_types=1);

namespace LucidStep\Tests\Core\Defects;

use LucidStep\Core\Defects\Chains;
use LucidStep\Core\Defects\DefectState;
use LucidStep\Core\Defects\OpenTime;
use LucidStep\Core\Defects\RetestProgress;
use LucidStep\Core\Defects\RetestResult;
use LucidStep\Core\Verdict\Verdict;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class RetestProgressTest extends TestCase
{
    /**
     * @param  list<Verdict>  $verdicts
     */
    #[DataProvider('steps')]
    public function test_a_step_has_passed_only_if_it_did_in_every_round(array $verdicts, RetestResult $result): void
    {
        self::assertSame($result, RetestResult::ofStep($verdicts));
    }

    /**
     * @return iterable<string, array{list<Verdict>, RetestResult}>
     */
    public static function steps(): iterable
    {
        yield 'passed' => [[Verdict::Pass, Verdict::Pass], RetestResult::Passed];
        yield 'failed in one round' => [[Verdict::Pass, Verdict::Blocked, Verdict::Fail], RetestResult::Failed];
        yield 'blocked says nothing' => [[Verdict::Pass, Verdict::Blocked], RetestResult::Open];
        yield 'not applicable in one round' => [[Verdict::Pass, Verdict::NotApplicable], RetestResult::Unproven];
        yield 'not walked' => [[Verdict::NotRun], RetestResult::Unproven];
        yield 'gone' => [[], RetestResult::Unproven];
    }

    public function test_those_that_were_asked_for_count_and_where_none_was_those_that_were_walked(): void
    {
        $all = [[true, RetestResult::Passed], [true, RetestResult::Open], [false, RetestResult::Failed]];
        self::assertEquals([1, 2, false, false], self::of($all));
        self::assertEquals([1, 1, true, false], self::of([[false, RetestResult::Passed], [false, RetestResult::Open]]));
        self::assertEquals([0, 0, false, false], self::of([[false, RetestResult::Open]]), 'nothing was walked');
        self::assertEquals([1, 2, false, true], self::of([[true, RetestResult::Passed], [true, RetestResult::Unproven]]));
        self::assertEquals([1, 2, false, false], self::of([[true, RetestResult::Passed], [true, RetestResult::Failed]]));
    }

    public function test_property_it_is_proven_only_if_every_asked_one_passed(): void
    {
        mt_srand(15);
        $pick = static fn(): RetestResult => RetestResult::cases()[mt_rand(0, 3)];
        for ($turn = 0; $turn < 2000; $turn++) {
            $entries = array_map(static fn(): array => [mt_rand(0, 1) > 0, $pick()], array_fill(0, mt_rand(0, 4), null));
            $asked = array_column(array_filter($entries, static fn(array $e): bool => $e[0]), 1);
            [$passed, $of, $isProven, $isProposed] = self::of($entries);
            if ([] !== $asked) {
                self::assertSame(count($asked), $of);
                self::assertSame([RetestResult::Passed] === array_values(array_unique($asked, SORT_REGULAR)), $isProven);
            }
            self::assertFalse($isProven && $isProposed);
            self::assertTrue($passed <= $of && (!$isProven || $of > 0));
            if ($isProven || $isProposed) {
                self::assertNotContains(RetestResult::Failed, $asked);
                self::assertNotContains(RetestResult::Open, $asked);
            }
        }
    }

    public function test_what_speaks_against_a_fix_stands_first(): void
    {
        [$failed, $open, $unproven, $passed] = [RetestResult::Failed, RetestResult::Open, RetestResult::Unproven, RetestResult::Passed];
        self::assertSame($failed, RetestResult::all([$passed, $open, $failed]));
        self::assertSame($open, RetestResult::all([$unproven, $open]));
        self::assertSame($unproven, RetestResult::all([$passed, $unproven]));
        self::assertSame($passed, RetestResult::all([$passed]));
        self::assertSame($open, RetestResult::all([]));
    }

    public function test_property_age_counts_open_time_only(): void
    {
        mt_srand(7);
        for ($turn = 0; $turn < 500; $turn++) {
            [$now, $open, $sum] = [1000, true, 0];
            $age = new OpenTime(0, $now);
            for ($moves = mt_rand(0, 8); $moves > 0; $moves--) {
                $later = $now + mt_rand(0, 50);
                $sum += $open ? $later - $now : 0;
                $to = DefectState::cases()[mt_rand(0, count(DefectState::cases()) - 1)];
                $age = $age->moved($to, $now = $later);
                $open = !$to->isClosed();
                self::assertSame($sum, $age->at($now));
            }
            self::assertSame($sum + ($open ? 10 : 0), $age->at($now + 10));
        }
        self::assertSame(5, (new OpenTime(5, 1000))->at(900), 'a clock that was set back');
    }

    public function test_all_of_a_chain_are_found_from_its_first(): void
    {
        $duplicates = new Chains(['D3' => 'D2', 'D2' => 'D1', 'D5' => 'D4']);
        self::assertSame(['D1', 'D3', 'D2'], $duplicates->allOf('D1'));
        self::assertSame(['D4', 'D5'], $duplicates->allOf('D4'));
        self::assertSame(['D9'], $duplicates->allOf('D9'));
    }

    /**
     * @param  list<array{bool, RetestResult}>  $entries
     *
     * @return array{int, int, bool, bool}
     */
    private static function of(array $entries): array
    {
        $p = RetestProgress::of($entries);

        return [$p->passed, $p->of, $p->isProven, $p->isProposed];
    }
}
