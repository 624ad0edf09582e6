<?php

declare(strict_types=1);

namespace LucidStep\Core\Casebook;

/**
 * What is done with a case in its review.
 */
enum ReviewAct: string
{
    case Ask = 'ask';
    case Approve = 'approve';
    case SendBack = 'return';

    /**
     * The state a case has afterwards.
     */
    public function becomes(): CaseState
    {
        return match ($this) {
            self::Ask => CaseState::InReview,
            self::Approve => CaseState::Approved,
            self::SendBack => CaseState::Draft,
        };
    }
}
