<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use OpenApi\Attributes as OA;

/**
 * Which of the proposed entries are to be walked again.
 */
#[
    OA\Schema(
        required: ['entries'],
        properties: [new OA\Property(property: 'entries', type: 'array', items: new OA\Items(type: 'string', format: 'uuid'))],
    ),
]
final class RetestsRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'entries' => ['required', 'array', 'min:1', 'max:100'],
            'entries.*' => ['uuid', 'distinct'],
        ];
    }

    public function messages(): array
    {
        return ['entries.required' => 'Choose what is to be walked again.'];
    }
}
