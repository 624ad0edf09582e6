<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use OpenApi\Attributes as OA;

/**
 * A cycle or a milestone again.
 */
#[
    OA\Schema(
        required: ['name'],
        properties: [
            new OA\Property(property: 'name', type: 'string'),
            new OA\Property(property: 'starts_on', type: 'string', format: 'date'),
            new OA\Property(property: 'due_on', type: 'string', format: 'date'),
            new OA\Property(property: 'which', type: 'string', enum: ['all', 'failed', 'failed_blocked', 'not_run', 'open']),
            new OA\Property(property: 'build_id', type: 'string', format: 'uuid', nullable: true),
            new OA\Property(property: 'off_days', type: 'boolean'),
            new OA\Property(property: 'people', type: 'boolean'),
            new OA\Property(property: 'preview', type: 'boolean'),
        ],
    ),
]
final class CloneRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'name' => ['required', 'string', 'max:200'],
            'starts_on' => ['nullable', 'date_format:Y-m-d', 'required_without:due_on'],
            'due_on' => ['nullable', 'date_format:Y-m-d'],
            'which' => ['nullable', 'in:all,failed,failed_blocked,not_run,open'],
            'build_id' => ['nullable', 'uuid'],
            'off_days' => ['nullable', 'boolean'],
            'people' => ['nullable', 'boolean'],
            'preview' => ['nullable', 'boolean'],
        ];
    }
}
