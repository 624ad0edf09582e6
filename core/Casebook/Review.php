<?php

declare(strict_types=1);

namespace LucidStep\Core\Casebook;

/**
 * Where a case stands between draft and approved, and what may happen to it there.
 */
final class Review
{
    /**
     * @param  bool  $newestApproved whether the version that was approved last is the newest
     *
     * @return ?CaseState the state it has then; null when the act does not fit: retired cases are not reviewed, only what is
     *     in review is returned, and nothing is asked for or approved twice
     */
    public static function after(CaseState $state, ReviewAct $act, bool $newestApproved): ?CaseState
    {
        $becomes = $act->becomes();

        return match (true) {
            CaseState::Retired === $state,
            ReviewAct::SendBack === $act && CaseState::InReview !== $state,
            $becomes === $state && (CaseState::Approved !== $state || $newestApproved)
                => null,
            default => $becomes,
        };
    }

    /**
     * Whether writing a case approves it: it was not approved, and is not just given back to the state in which it was.
     *
     * @param  ?CaseState  $from null: it is new
     * @param  bool  $asApproved whether its text is the one that was approved last
     */
    public static function approves(?CaseState $from, CaseState $to, bool $asApproved): bool
    {
        return CaseState::Approved === $to && CaseState::Approved !== $from && !$asApproved;
    }

    /**
     * The version that entries of a case walk: the newest, or the one approved last where only approved cases may enter
     * cycles.
     *
     * @param  string  $newest   ids of versions
     * @param  ?string  $approved null: none was approved yet
     */
    public static function walked(string $newest, ?string $approved, bool $onlyApprovedCases): string
    {
        return $onlyApprovedCases && null !== $approved ? $approved : $newest;
    }

    /**
     * The state of a case whose text was changed (rules of the job, 1): where only approved cases may enter cycles, an
     * approved one goes back to review; its approved version stays usable.
     */
    public static function afterEdit(CaseState $state, bool $onlyApprovedCases): CaseState
    {
        return $onlyApprovedCases && CaseState::Approved === $state ? CaseState::InReview : $state;
    }
}
