<?php

declare(strict_types=1);

namespace LucidStep\Tests\Core\Sessions;

use LucidStep\Core\Sessions\RoutineRuns;
use PHPUnit\Framework\TestCase;

/**
 * A run of sentences that equals a routine becomes its use.
 */
final class RoutineRunsTest extends TestCase
{
    public function test_a_run_is_found_the_longer_first_and_all_else_stays(): void
    {
        $routines = ['short' => ['Open "/"'], 'long' => ['Open "/"', 'Press "Pay"'], 'empty' => [], 'other' => ['Press "Pay"', 'Look']];
        $in = static fn(string ...$sentences): array => array_map(
            static fn(string|array $s): string => \is_string($s) ? $s : "<{$s['routine']}>",
            RoutineRuns::in(array_values($sentences), $routines),
        );
        self::assertSame(['<long>', 'Tick "Bike"', '<short>'], $in('open  “/”.', 'Press "Pay"', 'Tick "Bike"', 'Open "/"'));
        self::assertSame(['Press "Pay"', '<long>'], $in('Press "Pay"', 'Open "/"', 'Press "Pay"'));
        self::assertSame([], $in());
    }

    /**
     * Written out again, what was found is what was there.
     */
    public function test_nothing_is_lost(): void
    {
        mt_srand(3);
        for ($run = 0; $run < 500; ++$run) {
            $some = static fn(int $most): array => array_map(static fn(): string => 'abc'[mt_rand(0, 2)], range(1, mt_rand(1, $most)));
            $routines = ['r' => $some(3), 's' => $some(2)];
            $sentences = $some(12);
            $out = [];
            foreach (RoutineRuns::in($sentences, $routines) as $found) {
                array_push($out, ...\is_string($found) ? [$found] : $routines[$found['routine']]);
            }
            self::assertSame($sentences, $out);
        }
    }
}
