<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use OpenApi\Attributes as OA;

/**
 * Whether a late act is accepted or set aside.
 */
#[
    OA\Schema(
        required: ['accept'],
        properties: [
            new OA\Property(property: 'accept', type: 'boolean'),
            new OA\Property(property: 'all', type: 'boolean', nullable: true),
        ],
    ),
]
final class LateDecisionRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'accept' => ['required', 'boolean'],
            'all' => ['nullable', 'boolean'],
        ];
    }
}
