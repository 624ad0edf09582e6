<?php

declare(strict_types=1);

namespace LucidStep\Tests\Core\Verdict;

use LucidStep\Core\Verdict\AfterDone;
use LucidStep\Core\Verdict\CannotFinish;
use LucidStep\Core\Verdict\Finish;
use LucidStep\Core\Verdict\Policies;
use LucidStep\Core\Verdict\Verdict;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class FinishTest extends TestCase
{
    public function test_the_roll_up_stands_where_the_policy_lets_it(): void
    {
        $finish = Finish::decide([[Verdict::Pass, Verdict::Fail]], null, ' ', new Policies());
        self::assertSame([Verdict::Fail, Verdict::Fail, false, ''], [$finish->rollUp, $finish->verdict, $finish->overruled, $finish->note]);
    }

    public function test_what_is_only_suggested_has_to_be_chosen(): void
    {
        $policies = new Policies(passSetsVerdict: false, failSetsVerdict: false);
        foreach ([Verdict::Pass, Verdict::Fail] as $verdict) {
            self::assertSame('verdict', self::refused([[$verdict]], null, '', $policies)->field);
            self::assertFalse(Finish::decide([[$verdict]], $verdict, '', $policies)->overruled);
        }
    }

    public function test_overruling_keeps_both_and_needs_three_graphemes(): void
    {
        $finish = Finish::decide([[Verdict::Fail]], Verdict::Pass, '  known in this build ', new Policies());
        self::assertSame(
            [Verdict::Fail, Verdict::Pass, true, 'known in this build'],
            [$finish->rollUp, $finish->verdict, $finish->overruled, $finish->note],
        );
        self::assertSame('note', self::refused([[Verdict::Fail]], Verdict::Pass, ' ab ')->field);
        // Three people made of many code points are three graphemes, two are two.
        self::assertTrue(Finish::decide([[Verdict::Fail]], Verdict::Pass, '👩‍🚒👩‍🚒👩‍🚒', new Policies())->overruled);
        self::assertSame('note', self::refused([[Verdict::Fail]], Verdict::Pass, '👩‍🚒👩‍🚒')->field);
    }

    public function test_unfinished_steps_want_a_verdict_and_a_word(): void
    {
        self::assertSame('verdict', self::refused([[Verdict::Pass, Verdict::NotRun]], null, 'time is up')->field);
        self::assertSame('note', self::refused([[Verdict::Pass, Verdict::NotRun]], Verdict::Pass, '')->field);
        self::assertSame(
            Verdict::Pass,
            Finish::decide([[Verdict::Pass, Verdict::NotRun]], Verdict::Pass, 'time is up', new Policies())->verdict,
        );
        self::assertSame(Verdict::NotApplicable, Finish::decide([[]], Verdict::NotApplicable, 'no such page', new Policies())->verdict);
    }

    #[DataProvider('notFinal')]
    public function test_an_attempt_ends_with_a_final_verdict_only(Verdict $verdict): void
    {
        self::assertSame('verdict', self::refused([[Verdict::Pass]], $verdict, 'because')->field);
    }

    /**
     * @return iterable<array{Verdict}>
     */
    public static function notFinal(): iterable
    {
        yield [Verdict::NotRun];
        yield [Verdict::InProgress];
    }

    public function test_policies_survive_storage_and_take_defaults_for_nonsense(): void
    {
        $policies = new Policies(false, false, false, true, true, true, AfterDone::Stay, true);
        self::assertEquals($policies, Policies::fromArray($policies->toArray()));
        self::assertEquals(new Policies(), Policies::fromArray([]));
        self::assertEquals(new Policies(), Policies::fromArray(['fail_sets_verdict' => 'no', 'after_finishing' => 7, 'unknown' => true]));
    }

    /**
     * @param  list<list<Verdict>>  $rounds
     */
    private static function refused(array $rounds, ?Verdict $chosen, string $note, Policies $policies = new Policies()): CannotFinish
    {
        try {
            Finish::decide($rounds, $chosen, $note, $policies);
        } catch (CannotFinish $e) {
            return $e;
        }
        self::fail('The attempt was finished.');
    }
}
