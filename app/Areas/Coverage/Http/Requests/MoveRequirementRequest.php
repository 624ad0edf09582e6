<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Coverage\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use OpenApi\Attributes as OA;

/**
 * Where a requirement goes in its tree.
 */
#[
    OA\Schema(
        properties: [
            new OA\Property(property: 'parent_id', type: 'string', format: 'uuid', nullable: true, description: 'null: on top'),
            new OA\Property(property: 'before_id', type: 'string', format: 'uuid', nullable: true, description: 'null: last'),
        ],
    ),
]
final class MoveRequirementRequest extends ApiRequest
{
    public function rules(): array
    {
        return ['parent_id' => ['nullable', 'uuid'], 'before_id' => ['nullable', 'uuid']];
    }
}
