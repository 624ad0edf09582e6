<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use OpenApi\Attributes as OA;

/**
 * An answer to a question or a suggestion.
 */
#[
    OA\Schema(
        required: ['as'],
        properties: [
            new OA\Property(property: 'as', type: 'string', enum: ['answered', 'taken', 'declined']),
            new OA\Property(property: 'answer', type: 'string'),
        ],
    ),
]
final class AnswerRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'as' => ['required', 'in:answered,taken,declined'],
            'answer' => ['nullable', 'string', 'max:4000'],
        ];
    }
}
