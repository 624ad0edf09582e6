<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use OpenApi\Attributes as OA;

/**
 * A step of a review.
 */
#[
    OA\Schema(
        required: ['act'],
        properties: [
            new OA\Property(property: 'act', type: 'string', enum: ['ask', 'approve', 'return']),
            new OA\Property(property: 'comment', type: 'string'),
        ],
    ),
]
final class ReviewRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'act' => ['required', 'in:ask,approve,return'],
            'comment' => ['nullable', 'string', 'max:4000'],
        ];
    }
}
