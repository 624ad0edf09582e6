<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Http\Requests;

use Illuminate\Validation\Rule;
use LucidStep\App\Support\Http\ApiRequest;
use LucidStep\Core\Casebook\ReviewAct;
use OpenApi\Attributes as OA;

/**
 * A step of a review.
 */
#[
    OA\Schema(
        required: ['act'],
        properties: [
            new OA\Property(property: 'act', type: 'string', enum: ReviewAct::class),
            new OA\Property(property: 'comment', type: 'string'),
        ],
    ),
]
final class ReviewRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'act' => ['required', Rule::enum(ReviewAct::class)],
            'comment' => ['nullable', 'string', 'max:4000'],
        ];
    }
}
