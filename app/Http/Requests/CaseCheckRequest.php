<?php

declare(strict_types=1);

namespace LucidStep\App\Http\Requests;

use OpenApi\Attributes as OA;

/**
 * A case to be checked and shown as the tester will see it.
 */
#[OA\Schema(properties: [
    new OA\Property(property: 'title', type: 'string'),
    new OA\Property(property: 'objective', type: 'string'),
    new OA\Property(property: 'preconditions', type: 'string'),
    new OA\Property(property: 'postconditions', type: 'string'),
    new OA\Property(property: 'steps', type: 'array', items: new OA\Items(ref: '#/components/schemas/StepInput')),
    new OA\Property(property: 'table', type: 'string', format: 'uuid', nullable: true),
    new OA\Property(property: 'files', type: 'array', items: new OA\Items(ref: '#/components/schemas/FileRef')),
    new OA\Property(property: 'row', type: 'integer'),
])]
final class CaseCheckRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'title' => ['nullable', 'string', 'max:300'],
            'objective' => ['nullable', 'string', 'max:20000'],
            'preconditions' => ['nullable', 'string', 'max:20000'],
            'postconditions' => ['nullable', 'string', 'max:20000'],
            'steps' => ['array', 'max:500'],
            'steps.*.action' => ['nullable', 'string', 'max:20000'],
            'steps.*.data' => ['nullable', 'string', 'max:20000'],
            'steps.*.expected' => ['nullable', 'string', 'max:20000'],
            'steps.*.routine' => ['nullable', 'uuid'],
            'steps.*.values' => ['nullable', 'array'],
            'steps.*.values.*' => ['nullable', 'string', 'max:4000'],
            'steps.*.files' => ['nullable', 'array', 'max:20'],
            'steps.*.files.*.sha256' => ['required', 'string', 'size:64'],
            'steps.*.files.*.name' => ['nullable', 'string', 'max:200'],
            'table' => ['nullable', 'uuid'],
            'files' => ['nullable', 'array', 'max:50'],
            'files.*.sha256' => ['required', 'string', 'size:64'],
            'files.*.name' => ['nullable', 'string', 'max:200'],
            'row' => ['nullable', 'integer', 'min:1'],
        ];
    }
}
