<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use OpenApi\Attributes as OA;

/**
 * A case as it was typed.
 */
#[
    OA\Schema(
        required: ['title'],
        properties: [
            new OA\Property(property: 'title', type: 'string'),
            new OA\Property(property: 'objective', type: 'string'),
            new OA\Property(property: 'preconditions', type: 'string'),
            new OA\Property(property: 'postconditions', type: 'string'),
            new OA\Property(property: 'steps', type: 'array', items: new OA\Items(ref: '#/components/schemas/StepInput')),
            new OA\Property(property: 'table', type: 'string', format: 'uuid', nullable: true),
            new OA\Property(property: 'files', type: 'array', items: new OA\Items(ref: '#/components/schemas/FileRef')),
            new OA\Property(property: 'folder_id', type: 'string', format: 'uuid', nullable: true),
            new OA\Property(property: 'type', type: 'string'),
            new OA\Property(property: 'priority', type: 'string'),
            new OA\Property(property: 'estimate', type: 'string'),
            new OA\Property(property: 'automated', type: 'boolean'),
            new OA\Property(property: 'is_template', type: 'boolean'),
            new OA\Property(property: 'owner_id', type: 'string', format: 'uuid', nullable: true),
            new OA\Property(property: 'labels', type: 'array', items: new OA\Items(type: 'string')),
            new OA\Property(property: 'requirements', type: 'array', items: new OA\Items(type: 'string', format: 'uuid')),
            new OA\Property(property: 'custom', type: 'object', additionalProperties: new OA\AdditionalProperties(type: 'string')),
            new OA\Property(property: 'revision', type: 'integer', description: 'What the person began from; needed to change a case'),
            new OA\Property(property: 'version', type: 'integer', description: 'The version that a merge begins from'),
        ],
    ),
]
final class CaseRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'title' => ['required', 'string', 'max:300'],
            ...self::TEXTS,
            'folder_id' => ['nullable', 'uuid'],
            'type' => ['nullable', 'string', 'max:60'],
            'priority' => ['nullable', 'string', 'max:60'],
            'estimate' => ['nullable', 'string', 'max:40'],
            'automated' => ['nullable', 'boolean'],
            'is_template' => ['nullable', 'boolean'],
            'owner_id' => ['nullable', 'uuid'],
            'labels' => ['nullable', 'array', 'max:50'],
            'labels.*' => ['string', 'max:60'],
            'requirements' => ['nullable', 'array', 'max:200'],
            'requirements.*' => ['uuid'],
            'custom' => ['nullable', 'array', 'max:60'],
            'custom.*' => ['nullable', 'string', 'max:4000'],
            'revision' => ['nullable', 'integer', 'min:1'],
            'version' => ['nullable', 'integer', 'min:1'],
        ];
    }
}
