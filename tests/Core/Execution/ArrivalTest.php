<?php

declare(strict_types=1);

namespace LucidStep\Tests\Core\Execution;

use LucidStep\Core\Execution\Arrival;
use LucidStep\Core\Planning\CycleState;
use LucidStep\Core\Verdict\AttemptState;
use PHPUnit\Framework\TestCase;

final class ArrivalTest extends TestCase
{
    public function test_what_was_done_before_the_edge_is_applied_and_marked(): void
    {
        $edge = new \DateTimeImmutable('2026-11-24T10:00:00Z');
        $before = $edge->modify('-1 microsecond');
        $on = static fn(bool $own, ?\DateTimeImmutable $done, CycleState $cycle = CycleState::Released): Arrival => Arrival::judge(
            true,
            AttemptState::Open,
            $own,
            $done,
            $edge,
            $cycle,
            $edge,
        );
        self::assertEquals([false, null], [$on(true, $before)->late, $on(true, $before)->why]);
        self::assertEquals([true, null], [$on(false, $before)->late, $on(false, $before)->why]);
        self::assertSame('The attempt is with another person.', $on(false, $edge)->why);
        self::assertSame('The attempt is with another person.', $on(false, null)->why, 'without a time nothing is before');
        self::assertEquals([true, null], [$on(true, $before, CycleState::Closed)->late, $on(true, $before, CycleState::Closed)->why]);
        self::assertSame('The cycle is closed.', $on(true, $edge, CycleState::Closed)->why);
        self::assertSame(
            'The attempt is finished.',
            Arrival::judge(true, AttemptState::Finished, true, $before, null, CycleState::Released, null)->why,
        );
        self::assertSame(
            'You do not record in this project any more.',
            Arrival::judge(false, AttemptState::Open, true, $before, null, CycleState::Released, null)->why,
        );
    }

    public function test_only_a_clock_that_is_off_by_more_than_the_tolerance_is_corrected(): void
    {
        $now = new \DateTimeImmutable('2026-11-24T10:00:00.250000Z');
        mt_srand(4);
        for ($n = 0; $n < 300; $n++) {
            $off = mt_rand(-9_000_000, 9_000_000);
            $ago = mt_rand(0, 50_000_000);
            $shown = static fn(\DateTimeImmutable $t): \DateTimeImmutable => $t->modify(\sprintf('%+d milliseconds', $off));
            $done = $now->modify("-{$ago} milliseconds");
            $true = Arrival::trueTime($shown($done), $shown($now), $now, 120_000);
            self::assertEquals(abs($off) > 120_000 ? $done : $shown($done), $true);
            self::assertEquals($shown($done), Arrival::trueTime($shown($done), null, $now, 120_000));
        }
    }
}
