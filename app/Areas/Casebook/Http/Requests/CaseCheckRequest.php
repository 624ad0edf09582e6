<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use OpenApi\Attributes as OA;

/**
 * A case to be checked and shown as the tester will see it.
 */
#[
    OA\Schema(
        properties: [
            new OA\Property(property: 'title', type: 'string'),
            new OA\Property(property: 'objective', type: 'string'),
            new OA\Property(property: 'preconditions', type: 'string'),
            new OA\Property(property: 'postconditions', type: 'string'),
            new OA\Property(property: 'steps', type: 'array', items: new OA\Items(ref: '#/components/schemas/StepInput')),
            new OA\Property(property: 'table', type: 'string', format: 'uuid', nullable: true),
            new OA\Property(property: 'files', type: 'array', items: new OA\Items(ref: '#/components/schemas/FileRef')),
            new OA\Property(property: 'row', type: 'integer'),
        ],
    ),
]
final class CaseCheckRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'title' => ['nullable', 'string', 'max:300'],
            ...self::TEXTS,
            'row' => ['nullable', 'integer', 'min:1'],
        ];
    }
}
