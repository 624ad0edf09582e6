<?php

declare(strict_types=1);

namespace LucidStep\Tests\Core\Planning;

use LucidStep\Core\Planning\Condition;
use LucidStep\Core\Planning\ConditionKind;
use LucidStep\Core\Planning\Conditions;
use LucidStep\Core\Planning\LoopRefused;
use PHPUnit\Framework\TestCase;

final class ConditionsTest extends TestCase
{
    public function test_a_loop_is_refused_and_named_in_order(): void
    {
        try {
            self::of('x>a', 'a>b', 'b>c', 'c>a');
            self::fail('The loop was taken.');
        } catch (LoopRefused $e) {
            self::assertCount(3, $e->loop);
            $turned = $e->loop;
            while ($turned[0] !== 'a') {
                $turned[] = array_shift($turned);
            }
            self::assertSame(['a', 'b', 'c'], $turned);
            self::assertStringContainsString('→', $e->getMessage());
        }
    }

    public function test_waiting_for_oneself_is_a_loop_of_one(): void
    {
        $this->expectExceptionMessage('a → a');
        self::of('a>a');
    }

    public function test_two_ways_to_the_same_entry_are_no_loop(): void
    {
        $conditions = self::of('d>b', 'd>c', 'b>a', 'c>a');
        self::assertCount(2, $conditions->on('d'));
        self::assertSame([], $conditions->on('a'));
    }

    public function test_a_chain_of_ten_thousand_is_walked_without_recursion(): void
    {
        $chain = [];
        for ($i = 0; $i < 10_000; $i++) {
            $chain[] = new Condition("e{$i}", 'e' . ($i + 1), ConditionKind::After);
        }
        self::assertCount(10_000, Conditions::of($chain)->all);
        $this->expectException(LoopRefused::class);
        Conditions::of([...$chain, new Condition('e10000', 'e0', ConditionKind::After)]);
    }

    /**
     * Whatever the graph: it is refused exactly when following conditions can come back to the start.
     */
    public function test_refused_exactly_when_an_entry_reaches_itself(): void
    {
        mt_srand(7);
        for ($n = 0; $n < 400; $n++) {
            $edges = [];
            for ($i = 0; $i < 7; $i++) {
                $edges[] = mt_rand(0, 5) . '>' . mt_rand(0, 5);
            }
            $reach = [];
            foreach ($edges as $edge) {
                [$from, $to] = explode('>', $edge);
                $reach[(int) $from][(int) $to] = true;
            }
            for ($k = 0; $k < 6; $k++) {
                for ($i = 0; $i < 6; $i++) {
                    for ($j = 0; $j < 6; $j++) {
                        if (isset($reach[$i][$k], $reach[$k][$j])) {
                            $reach[$i][$j] = true;
                        }
                    }
                }
            }
            $loops = array_filter(range(0, 5), static fn(int $i): bool => isset($reach[$i][$i])) !== [];
            try {
                self::of(...$edges);
                $refused = false;
            } catch (LoopRefused) {
                $refused = true;
            }
            self::assertSame($loops, $refused, implode(' ', $edges));
        }
    }

    public function test_entries_before_what_they_need_are_pointed_out(): void
    {
        $faults = self::of('a>c', 'c>b', 'd>a')->outOfOrder(['a', 'b', 'c', 'd']);
        self::assertSame([['a', 'c']], array_map(static fn(Condition $c): array => [$c->entry, $c->needs], $faults));
    }

    private static function of(string ...$edges): Conditions
    {
        return Conditions::of(
            array_values(
                array_map(static function (string $edge): Condition {
                    [$entry, $needs] = explode('>', $edge);

                    return new Condition($entry, $needs, ConditionKind::After);
                }, $edges),
            ),
        );
    }
}
