<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use OpenApi\Attributes as OA;

/**
 * A requirement.
 */
#[
    OA\Schema(
        required: ['title'],
        properties: [
            new OA\Property(property: 'title', type: 'string'),
            new OA\Property(property: 'parent_id', type: 'string', format: 'uuid', nullable: true),
        ],
    ),
]
final class RequirementRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'title' => ['required', 'string', 'max:300'],
            'parent_id' => ['nullable', 'uuid'],
        ];
    }
}
