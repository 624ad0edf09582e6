<?php

declare(strict_types=1);

namespace LucidStep\Tests\Core\Verdict;

use DateTimeImmutable;
use LucidStep\Core\Verdict\AttemptFacts;
use LucidStep\Core\Verdict\AttemptState;
use LucidStep\Core\Verdict\EntryState;
use LucidStep\Core\Verdict\Verdict;
use PHPUnit\Framework\TestCase;

final class EntryStateTest extends TestCase
{
    public function test_an_entry_without_attempts_is_not_run_and_one_stopped_by_a_cascade_blocked(): void
    {
        self::assertSame('not_run', EntryState::of([])->displayState);
        self::assertSame('blocked', EntryState::of([], null, true)->displayState);
    }

    public function test_an_open_attempt_counts_from_its_first_verdict(): void
    {
        self::assertSame('not_run', EntryState::of([self::open(1, false)])->displayState);
        self::assertSame('in_progress', EntryState::of([self::open(1, true)])->displayState);
    }

    public function test_an_open_attempt_without_a_verdict_leaves_what_stood_before(): void
    {
        $failed = self::finished(1, Verdict::Fail, '10:00');
        self::assertSame('fail', EntryState::of([$failed, self::open(2, false)])->displayState);
        $retest = EntryState::of([$failed, self::open(2, false)], new DateTimeImmutable('2027-06-01 11:00'));
        self::assertSame('retest (was fail)', $retest->label());
    }

    public function test_a_retest_stands_until_an_attempt_begun_after_it_is_finished(): void
    {
        $asked = new DateTimeImmutable('2027-06-01 11:00');
        $before = self::finished(1, Verdict::Fail, '10:00');
        self::assertSame('retest', EntryState::of([$before], $asked)->displayState);
        self::assertSame('retest', EntryState::of([$before, self::finished(2, Verdict::Pass, '10:59')], $asked)->displayState);
        self::assertSame('pass', EntryState::of([$before, self::finished(2, Verdict::Pass, '11:01')], $asked)->displayState);
    }

    public function test_the_finished_attempt_with_the_highest_number_speaks_whatever_their_order(): void
    {
        $attempts = [
            self::finished(3, Verdict::Blocked, '12:00'),
            self::finished(1, Verdict::Pass, '10:00'),
            self::finished(2, Verdict::Fail, '13:00'),
        ];
        self::assertSame('blocked', EntryState::of($attempts)->displayState);
        self::assertSame('blocked', EntryState::of(array_reverse($attempts))->displayState);
    }

    public function test_an_abandoned_attempt_says_nothing(): void
    {
        $abandoned = new AttemptFacts(2, AttemptState::Abandoned, true, null, new DateTimeImmutable('2027-06-01 12:00'));
        self::assertSame('pass', EntryState::of([self::finished(1, Verdict::Pass, '10:00'), $abandoned])->displayState);
        self::assertSame('not_run', EntryState::of([$abandoned])->displayState);
    }

    public function test_only_final_verdicts_are_done(): void
    {
        self::assertTrue(EntryState::of([self::finished(1, Verdict::NotApplicable, '10:00')])->isDone());
        self::assertFalse(EntryState::of([self::open(1, true)])->isDone());
        self::assertFalse(EntryState::of([self::finished(1, Verdict::Fail, '10:00')], new DateTimeImmutable('2027-06-02'))->isDone());
    }

    public function test_property_what_is_stored_of_a_state_is_read_as_that_state(): void
    {
        mt_srand(11);
        for ($n = 0; $n < 300; ++$n) {
            $attempts = [];
            foreach (range(1, mt_rand(1, 4)) as $number) {
                $verdict = [Verdict::Pass, Verdict::Fail, Verdict::Blocked, Verdict::NotApplicable][mt_rand(0, 3)];
                $attempts[] =
                    0 === mt_rand(0, 4)
                        ? self::open($number, 0 === mt_rand(0, 1))
                        : self::finished($number, $verdict, mt_rand(10, 19) . ':00');
            }
            $asked = 0 === mt_rand(0, 1) ? null : new DateTimeImmutable('2027-06-01 ' . mt_rand(10, 19) . ':30');
            $made = EntryState::of(mt_rand(0, 5) ? $attempts : [], $asked, 0 === mt_rand(0, 2));
            self::assertEquals(
                $made,
                EntryState::stored($made->displayState, $made->previousVerdict?->value, $made->stopped),
                "state {$n}",
            );
        }
    }

    private static function open(int $number, bool $hasVerdict): AttemptFacts
    {
        return new AttemptFacts($number, AttemptState::Open, $hasVerdict, null, new DateTimeImmutable('2027-06-01 14:00'));
    }

    private static function finished(int $number, Verdict $verdict, string $at): AttemptFacts
    {
        return new AttemptFacts($number, AttemptState::Finished, true, $verdict, new DateTimeImmutable("2027-06-01 {$at}"));
    }
}
