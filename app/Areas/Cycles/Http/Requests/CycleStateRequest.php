<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use OpenApi\Attributes as OA;

/**
 * Where a cycle goes, and why.
 */
#[
    OA\Schema(
        required: ['to'],
        properties: [
            new OA\Property(property: 'to', type: 'string', enum: ['draft', 'in_review', 'released', 'closed', 'abandoned']),
            new OA\Property(property: 'reason', type: 'string'),
        ],
    ),
]
final class CycleStateRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'to' => ['required', 'in:draft,in_review,released,closed,abandoned'],
            'reason' => ['nullable', 'string', 'max:2000'],
        ];
    }
}
