<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Setup\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use OpenApi\Attributes as OA;

/**
 * The policies of a project; those left out stay.
 */
#[
    OA\Schema(
        properties: [
            new OA\Property(property: 'fail_sets_verdict', type: 'boolean'),
            new OA\Property(property: 'pass_sets_verdict', type: 'boolean'),
            new OA\Property(property: 'opening_takes', type: 'boolean'),
            new OA\Property(property: 'only_assignee_records', type: 'boolean'),
            new OA\Property(property: 'cycle_closes_itself', type: 'boolean'),
            new OA\Property(property: 'only_approved_cases', type: 'boolean'),
            new OA\Property(property: 'skip_wrap_up_on_pass', type: 'boolean'),
            new OA\Property(property: 'cycles_are_reviewed', type: 'boolean'),
            new OA\Property(property: 'retests_verify', type: 'boolean'),
            new OA\Property(property: 'after_finishing', type: 'string', enum: ['next_in_order', 'next_open', 'stay']),
        ],
    ),
]
final class PoliciesRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'fail_sets_verdict' => ['boolean'],
            'pass_sets_verdict' => ['boolean'],
            'opening_takes' => ['boolean'],
            'only_assignee_records' => ['boolean'],
            'cycle_closes_itself' => ['boolean'],
            'only_approved_cases' => ['boolean'],
            'skip_wrap_up_on_pass' => ['boolean'],
            'cycles_are_reviewed' => ['boolean'],
            'retests_verify' => ['boolean'],
            'after_finishing' => ['in:next_in_order,next_open,stay'],
        ];
    }
}
