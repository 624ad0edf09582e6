<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use OpenApi\Attributes as OA;

/**
 * A question or a suggestion about a case.
 */
#[
    OA\Schema(
        required: ['kind'],
        properties: [
            new OA\Property(property: 'kind', type: 'string', enum: ['question', 'suggestion']),
            new OA\Property(property: 'body', type: 'string'),
            new OA\Property(property: 'step', type: 'integer', nullable: true),
            new OA\Property(property: 'proposal', ref: '#/components/schemas/StepInput', nullable: true),
        ],
    ),
]
final class MessageRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'kind' => ['required', 'in:question,suggestion'],
            'body' => ['nullable', 'string', 'max:4000'],
            'step' => ['nullable', 'integer', 'min:1'],
            'proposal' => ['nullable', 'array'],
            'proposal.action' => ['nullable', 'string', 'max:20000'],
            'proposal.data' => ['nullable', 'string', 'max:20000'],
            'proposal.expected' => ['nullable', 'string', 'max:20000'],
        ];
    }
}
