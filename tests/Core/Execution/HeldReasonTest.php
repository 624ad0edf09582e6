<?php

declare(strict_types=1);

namespace LucidStep\Tests\Core\Execution;

use LucidStep\Core\Execution\EntryFacts;
use LucidStep\Core\Execution\HeldReason;
use LucidStep\Core\Verdict\EntryState;
use LucidStep\Core\Verdict\Verdict;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class HeldReasonTest extends TestCase
{
    /**
     * @return iterable<string, array{HeldReason, string, bool}>
     */
    public static function reasons(): iterable
    {
        $needed = new EntryFacts('e1', 'SKR-C3', EntryState::stored(Verdict::NotRun->value, null));
        $nine = new \DateTimeImmutable('2026-11-29T08:00:00Z');
        yield 'after' => [HeldReason::waitsFor($needed), 'it waits for SKR-C3', false];
        yield 'only if passed' => [HeldReason::needsPass($needed), 'it needs a pass of SKR-C3', false];
        yield 'not applicable' => [
            HeldReason::needsPassOfNotApplicable($needed),
            'it needs a pass of SKR-C3, which is not applicable',
            false,
        ];
        yield 'stopped' => [HeldReason::stopped($needed), 'it waits on SKR-C3, which did not pass', false];
        yield 'too early' => [HeldReason::tooEarly($nine), 'it is not to be walked before 29 Nov 2026, 09:00 (Europe/Berlin)', true];
        yield 'too late' => [HeldReason::tooLate($nine), 'it is too late since 29 Nov 2026, 09:00 (Europe/Berlin)', true];
    }

    #[DataProvider('reasons')]
    public function test_a_reason_is_told_in_words_by_the_clocks_of_the_project(HeldReason $reason, string $words, bool $window): void
    {
        self::assertSame($words, $reason->words(new \DateTimeZone('Europe/Berlin')));
        self::assertSame($window, $reason->isWindow());
    }
}
