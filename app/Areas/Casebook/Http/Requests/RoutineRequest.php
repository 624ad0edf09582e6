<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use OpenApi\Attributes as OA;

/**
 * A routine as it was typed.
 */
#[
    OA\Schema(
        required: ['name'],
        properties: [
            new OA\Property(property: 'name', type: 'string'),
            new OA\Property(property: 'description', type: 'string'),
            new OA\Property(property: 'parameters', type: 'array', items: new OA\Items(ref: '#/components/schemas/ParameterLine')),
            new OA\Property(property: 'steps', type: 'array', items: new OA\Items(ref: '#/components/schemas/StepInput')),
            new OA\Property(property: 'revision', type: 'integer'),
        ],
    ),
]
final class RoutineRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'name' => ['required', 'string', 'max:120'],
            'description' => ['nullable', 'string', 'max:4000'],
            'parameters' => ['nullable', 'array', 'max:40'],
            'parameters.*.name' => ['nullable', 'string', 'max:200'],
            'parameters.*.default' => ['nullable', 'string', 'max:4000'],
            ...self::STEPS,
            'revision' => ['nullable', 'integer', 'min:1'],
        ];
    }
}
