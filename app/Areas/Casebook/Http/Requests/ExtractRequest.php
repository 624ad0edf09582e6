<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use OpenApi\Attributes as OA;

/**
 * Steps of a case that become a routine.
 */
#[
    OA\Schema(
        required: ['name', 'positions', 'revision'],
        properties: [
            new OA\Property(property: 'name', type: 'string'),
            new OA\Property(property: 'positions', type: 'array', items: new OA\Items(type: 'integer')),
            new OA\Property(property: 'revision', type: 'integer'),
        ],
    ),
]
final class ExtractRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'name' => ['required', 'string', 'max:120'],
            'positions' => ['required', 'array', 'min:1', 'max:500'],
            'positions.*' => ['integer', 'min:1'],
            'revision' => ['required', 'integer', 'min:1'],
        ];
    }
}
