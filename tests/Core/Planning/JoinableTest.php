<?php

declare(strict_types=1);

namespace LucidStep\Tests\Core\Planning;

use LucidStep\Core\Planning\Condition;
use LucidStep\Core\Planning\ConditionKind;
use LucidStep\Core\Planning\Conditions;
use LucidStep\Core\Planning\LoopRefused;
use PHPUnit\Framework\TestCase;

final class JoinableTest extends TestCase
{
    public function test_what_closes_a_loop_is_left_out_and_the_rest_taken(): void
    {
        $have = Conditions::of([self::condition('a', 'b')]);
        $further = [self::condition('b', 'c'), self::condition('c', 'a'), self::condition('d', 'd'), self::condition('d', 'a')];
        self::assertEquals([self::condition('b', 'c'), self::condition('d', 'a')], $have->joinable($further));
        self::assertSame([], Conditions::of([])->joinable([]));
    }

    /**
     * On random graphs: as if the whole were asked anew with each further condition, and never a loop.
     */
    public function test_property_each_is_taken_exactly_where_the_whole_would_take_it(): void
    {
        mt_srand(21);
        $left = 0;
        for ($n = 0; $n < 300; ++$n) {
            $entries = array_map(static fn(int $i): string => "e{$i}", range(1, mt_rand(2, 9)));
            $further = array_map(
                static fn(): Condition => self::condition($entries[array_rand($entries)], $entries[array_rand($entries)]),
                range(1, mt_rand(1, 25)),
            );
            $kept = [];
            foreach ($further as $one) {
                try {
                    Conditions::of([...$kept, $one]);
                    $kept[] = $one;
                } catch (LoopRefused) {
                    ++$left;
                }
            }
            self::assertEquals($kept, Conditions::of([])->joinable($further));
        }
        self::assertGreaterThan(100, $left);
    }

    private static function condition(string $entry, string $needs): Condition
    {
        return new Condition($entry, $needs, ConditionKind::After);
    }
}
