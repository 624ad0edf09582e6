<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use OpenApi\Attributes as OA;

/**
 * What the columns of a file are.
 */
#[
    OA\Schema(
        required: ['mapping', 'layout'],
        properties: [
            new OA\Property(property: 'mapping', type: 'array', items: new OA\Items(type: 'string', nullable: true)),
            new OA\Property(property: 'layout', type: 'string', enum: ['step', 'case']),
        ],
    ),
]
final class MappingRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'mapping' => ['required', 'array', 'max:120'],
            'mapping.*' => ['nullable', 'string', 'max:80'],
            'layout' => ['required', 'in:step,case'],
        ];
    }
}
