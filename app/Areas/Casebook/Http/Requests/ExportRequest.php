<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use OpenApi\Attributes as OA;

/**
 * Cases to take out.
 */
#[
    OA\Schema(
        required: ['format'],
        properties: [
            new OA\Property(property: 'format', type: 'string', enum: ['csv', 'xlsx', 'json', 'md', 'html']),
            new OA\Property(property: 'filter', ref: CaseFilterFields::class),
            new OA\Property(property: 'layout', type: 'string', enum: ['step', 'case']),
            new OA\Property(property: 'expand', type: 'boolean'),
        ],
    ),
]
final class ExportRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'format' => ['required', 'in:csv,xlsx,json,md,html'],
            ...CaseFilterFields::rules('filter'),
            'layout' => ['nullable', 'in:step,case'],
            'expand' => ['nullable', 'boolean'],
        ];
    }
}
