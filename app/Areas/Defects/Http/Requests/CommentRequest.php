<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use OpenApi\Attributes as OA;

/**
 * What somebody says of a defect, in Markdown; `@` and a name names somebody.
 */
#[
    OA\Schema(
        required: ['text'],
        properties: [
            new OA\Property(property: 'id', type: 'string', nullable: true, format: 'uuid', description: 'As the device chose it'),
            new OA\Property(property: 'text', type: 'string', description: 'May be empty where files go with it'),
        ],
    ),
]
final class CommentRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'id' => ['nullable', 'uuid'],
            'text' => ['nullable', 'string', 'max:20000'],
        ];
    }
}
