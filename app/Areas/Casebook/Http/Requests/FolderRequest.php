<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use OpenApi\Attributes as OA;

/**
 * A folder: its name, and where it stands.
 */
#[
    OA\Schema(
        properties: [
            new OA\Property(property: 'name', type: 'string'),
            new OA\Property(property: 'parent_id', type: 'string', format: 'uuid', nullable: true),
            new OA\Property(property: 'before', type: 'string', format: 'uuid', nullable: true),
            new OA\Property(property: 'move', type: 'boolean'),
            new OA\Property(property: 'seen', type: 'string', description: 'The state that one saw; needed to give it another name'),
        ],
    ),
]
final class FolderRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'name' => ['nullable', 'string', 'max:500'],
            'parent_id' => ['nullable', 'uuid'],
            'before' => ['nullable', 'uuid'],
            'move' => ['nullable', 'boolean'],
            'seen' => ['nullable', 'string', 'max:64'],
        ];
    }
}
