<?php

declare(strict_types=1);

namespace LucidStep\Core\Defects;

use LucidStep\Core\Verdict\Verdict;

/**
 * What walking an entry again says of the fault that it was linked to.
 */
enum RetestResult: string
{
    /** Not walked with the fix, not to its end, or blocked. */
    case Open = 'open';
    case Passed = 'passed';
    case Failed = 'failed';

    /** Walked, and yet it proves nothing: the step is gone, was not walked, or does not apply. */
    case Unproven = 'unproven';

    /**
     * Of one linked step, whatever other steps did.
     *
     * @param  list<Verdict>  $verdicts of the step in each round that counts; none where the step is gone
     */
    public static function ofStep(array $verdicts): self
    {
        return match (true) {
            \in_array(Verdict::Fail, $verdicts, true) => self::Failed,
            \in_array(Verdict::Blocked, $verdicts, true) => self::Open,
            [] === $verdicts => self::Unproven,
            [Verdict::Pass] === array_values(array_unique($verdicts, \SORT_REGULAR)) => self::Passed,
            default => self::Unproven,
        };
    }

    /**
     * Of an entry that is linked as a whole.
     */
    public static function ofAttempt(Verdict $verdict): self
    {
        return self::ofStep([$verdict]);
    }

    /**
     * Of an entry that is linked in several ways: what speaks against the fix first.
     *
     * @param  list<self>  $results
     */
    public static function all(array $results): self
    {
        foreach ([self::Failed, self::Open, self::Unproven] as $first) {
            if (\in_array($first, $results, true)) {
                return $first;
            }
        }

        return [] === $results ? self::Open : self::Passed;
    }
}
