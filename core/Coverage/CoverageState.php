<?php

declare(strict_types=1);

namespace LucidStep\Core\Coverage;

/**
 * What a cell, a case or a requirement shows (rules of the job, 2). One order for all of them, worst first.
 */
enum CoverageState: string
{
    case Fail = 'fail';
    case Blocked = 'blocked';
    case Retest = 'retest';
    case InProgress = 'in_progress';
    case NotRun = 'not_run';
    case Uncovered = 'uncovered';
    case Pass = 'pass';
    case NotApplicable = 'not_applicable';

    /**
     * @param  iterable<self>  $states
     *
     * @return ?self null of none
     */
    public static function worst(iterable $states): ?self
    {
        $worst = null;
        foreach ($states as $state) {
            if (null === $worst || $state->rank() < $worst->rank()) {
                $worst = $state;
            }
        }

        return $worst;
    }

    /**
     * Its place in the order, from 0: worst first.
     */
    public function rank(): int
    {
        return (int) array_search($this, self::cases(), true);
    }

    /**
     * Whether something was walked to its end, whatever came of it.
     */
    public function isWalked(): bool
    {
        return match ($this) {
            self::Fail, self::Blocked, self::Retest, self::Pass, self::NotApplicable => true,
            self::InProgress, self::NotRun, self::Uncovered => false,
        };
    }
}
