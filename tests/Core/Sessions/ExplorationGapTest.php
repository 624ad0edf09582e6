<?php

declare(strict_types=1);

namespace LucidStep\Tests\Core\Sessions;

use LucidStep\Core\Sessions\ExplorationGap;
use PHPUnit\Framework\TestCase;

/**
 * What is to be explored first of what nobody explored on the newest build.
 */
final class ExplorationGapTest extends TestCase
{
    public function test_never_first_then_longest_ago_then_open_defects_then_what_was_not_walked(): void
    {
        $order = [[null, 1, 0], [null, 0, 9], [null, 0, 2], [5, 0, 0], [2, 3, 0], [2, 0, 4]];
        mt_srand(5);
        for ($run = 0; $run < 50; ++$run) {
            $mixed = $order;
            shuffle($mixed);
            usort($mixed, static fn(array $a, array $b): int => (new ExplorationGap(...$a))->compare(new ExplorationGap(...$b)));
            self::assertSame($order, $mixed);
        }
    }
}
