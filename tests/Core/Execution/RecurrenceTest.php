<?php

declare(strict_types=1);

namespace LucidStep\Tests\Core\Execution;

use LucidStep\Core\Casebook\Step;
use LucidStep\Core\Execution\StepMatching;
use PHPUnit\Framework\TestCase;

final class RecurrenceTest extends TestCase
{
    public function test_a_step_is_found_again_where_it_stands_now(): void
    {
        $then = [
            new Step('Open the page'),
            new Step('Choose two seats', '2', 'Two seats are shown'),
            new Step('Pay by card', '', 'It is paid'),
            new Step('Read the mail'),
        ];
        $now = [
            new Step('Sign in first with the code of the day'),
            new Step('Open the page'),
            new Step('Choose two seats', '3', 'Two seats are shown'),
            new Step('Read the mail'),
        ];
        self::assertSame(
            [2 => ['was' => 1, 'same' => true], 3 => ['was' => 2, 'same' => false], 4 => ['was' => 4, 'same' => true]],
            StepMatching::steps($then, $now),
        );
        self::assertSame([], StepMatching::steps([], $now));
        self::assertSame([], StepMatching::steps($then, []));
    }

    public function test_whatever_was_put_in_taken_out_or_moved_no_step_is_found_twice(): void
    {
        mt_srand(7);
        for ($run = 0; $run < 120; $run++) {
            $then = array_map(
                static fn(int $i): Step => new Step("Do thing {$i} with care", "data {$i}", "See {$i}"),
                range(1, mt_rand(1, 9)),
            );
            $now = $then;
            for ($n = mt_rand(0, 4); $n > 0; $n--) {
                $at = mt_rand(0, max(0, \count($now) - 1));
                mt_rand(0, 1) === 0
                    ? array_splice($now, $at, 1)
                    : array_splice($now, $at, 0, [new Step('Wholly other words ' . mt_rand(), (string) mt_rand(), '')]);
            }
            $found = StepMatching::steps($then, $now);
            $was = array_column($found, 'was');
            self::assertSame($was, array_values(array_unique($was)));
            foreach ($found as $step => $pair) {
                self::assertSame($pair['same'], $now[$step - 1]->equals($then[$pair['was'] - 1]));
            }
            // What was left as it was is always found.
            foreach ($now as $i => $step) {
                self::assertSame(\in_array($step, $then, true), isset($found[$i + 1]) && $found[$i + 1]['same']);
            }
        }
    }

    public function test_a_round_is_known_by_its_values_the_newest_first(): void
    {
        $then = [1 => ['who' => 'isla', 'seats' => '2'], 3 => ['who' => 'rory', 'seats' => '1'], 2 => ['who' => 'isla', 'seats' => '2']];
        self::assertSame(
            [1 => ['was' => 3, 'same' => true], 2 => ['was' => 2, 'same' => true]],
            StepMatching::rounds($then, [
                2 => ['seats' => '2', 'who' => 'isla'],
                1 => ['seats' => '1', 'who' => 'rory'],
                4 => ['who' => 'bo', 'seats' => '1'],
            ]),
        );
        self::assertSame(
            [5 => ['was' => 2, 'same' => false]],
            StepMatching::rounds([2 => ['a' => '1']], [5 => ['a' => '2']]),
            'the only round of both',
        );
        self::assertSame([], StepMatching::rounds([2 => ['a' => '1'], 3 => ['a' => '3']], [5 => ['a' => '2']]));
    }
}
