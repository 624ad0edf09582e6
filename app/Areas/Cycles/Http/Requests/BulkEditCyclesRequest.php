<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use LucidStep\App\Support\Http\UuidList;
use OpenApi\Attributes as OA;

/**
 * An act on many cycles.
 */
#[
    OA\Schema(
        required: ['ids'],
        properties: [
            new OA\Property(property: 'ids', type: 'array', items: new OA\Items(type: 'string', format: 'uuid')),
            new OA\Property(property: 'days', type: 'integer'),
            new OA\Property(property: 'build_id', type: 'string', format: 'uuid', nullable: true),
        ],
    ),
]
final class BulkEditCyclesRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'ids' => ['required', 'array', 'max:500', new UuidList()],
            'days' => ['nullable', 'integer', 'between:-365,365', 'required_without:build_id'],
            'build_id' => ['nullable', 'uuid'],
        ];
    }
}
