<?php

declare(strict_types=1);

namespace LucidStep\Tests\Core\Defects;

use LucidStep\Core\Defects\WalkFacts;
use PHPUnit\Framework\TestCase;

final class WalkFactsTest extends TestCase
{
    public function test_only_what_is_otherwise_is_named_up_to_the_step_and_with_what_there_is_none_of(): void
    {
        $one = new WalkFacts(['Build' => '1.0', 'Tester' => 'Tess'], [['age', '15'], ['who', 'x']], ['Go', 'Pay `{{sum}}`', 'Leave']);
        $two = new WalkFacts(['Build' => '1.1', 'Tester' => 'Tess'], [['age', '16'], ['who', 'x'], ['bike', '']], ['Go', 'Pay `cash`']);
        self::assertSame(
            [['Build', '1.0', '1.1'], ['age', '15', '16'], ['Step 2', 'Pay `{{sum}}`', 'Pay `cash`']],
            $one->differences($two, 2),
        );
        self::assertSame(['Step 3', 'Leave', '(none)'], $one->differences($two, 3)[3]);
        self::assertSame([], $one->differences($one, 9));
        self::assertSame(
            array_map(static fn(array $d): array => [$d[0], $d[2], $d[1]], $one->differences($two, 9)),
            array_values($two->differences($one, 9)),
        );
    }

    public function test_columns_that_are_numbers_and_names_keep_their_names(): void
    {
        $of = static fn(string $value): WalkFacts => new WalkFacts([], [['7', $value], ['8', 'same']], []);
        self::assertSame([['7', 'a', 'b']], $of('a')->differences($of('b'), 0));
        $named = static fn(string $value): WalkFacts => new WalkFacts(['Build' => 'same'], [['Build', $value]], []);
        self::assertSame([['Build', 'a', 'b']], $named('a')->differences($named('b'), 0));
    }
}
