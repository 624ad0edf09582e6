<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Setup\Data;

use LucidStep\Core\Verdict\Policies;
use OpenApi\Attributes as OA;

/**
 * The policies of a project.
 */
#[OA\Schema(description: 'The policies of a project.')]
final readonly class PolicySet
{
    public function __construct(
        #[OA\Property] public bool $fail_sets_verdict,
        #[OA\Property] public bool $pass_sets_verdict,
        #[OA\Property] public bool $opening_takes,
        #[OA\Property] public bool $only_assignee_records,
        #[OA\Property] public bool $cycle_closes_itself,
        #[OA\Property] public bool $only_approved_cases,
        #[OA\Property] public bool $skip_wrap_up_on_pass,
        #[OA\Property] public bool $cycles_are_reviewed,
        #[OA\Property] public bool $retests_verify,
        #[OA\Property(enum: ['next_in_order', 'next_open', 'stay'])] public string $after_finishing,
    ) {}

    public static function from(Policies $p): self
    {
        return new self(
            $p->failSetsVerdict,
            $p->passSetsVerdict,
            $p->openingTakes,
            $p->onlyAssigneeRecords,
            $p->cycleClosesItself,
            $p->onlyApprovedCases,
            $p->skipWrapUpOnPass,
            $p->cyclesAreReviewed,
            $p->retestsVerify,
            $p->afterFinishing->value,
        );
    }
}
