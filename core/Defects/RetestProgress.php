<?php

declare(strict_types=1);

namespace LucidStep\Core\Defects;

/**
 * How far a fix is proven: what came of the entries that were to be walked again (rules of the job, 7).
 */
final readonly class RetestProgress
{
    /**
     * @param  int  $passed     so many of them passed
     * @param  int  $of         so many count
     * @param  bool  $isProven   all passed: verified
     * @param  bool  $isProposed all were walked and none failed, yet not each proves it: somebody decides
     */
    private function __construct(public int $passed, public int $of, public bool $isProven, public bool $isProposed) {}

    /**
     * @param  list<array{bool, RetestResult}>  $entries of each entry it is linked to: whether it was asked for since the fix, and what
     *     came of it since, on the build of the fix or later. None asked for: those that were walked count
     */
    public static function of(array $entries): self
    {
        $asked = array_filter($entries, static fn(array $e): bool => $e[0]);
        $counted = [] === $asked ? array_filter($entries, static fn(array $e): bool => RetestResult::Open !== $e[1]) : $asked;
        $number = static fn(RetestResult $result): int => \count(array_filter($counted, static fn(array $e): bool => $result === $e[1]));
        [$passed, $of] = [$number(RetestResult::Passed), \count($counted)];

        return new self($passed, $of, $of > 0 && $passed === $of, $passed < $of && $passed + $number(RetestResult::Unproven) === $of);
    }
}
