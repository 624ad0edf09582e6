<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Evidence\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use OpenApi\Attributes as OA;

/**
 * A picture or text for a step or a case.
 */
#[
    OA\Schema(
        required: ['file'],
        properties: [
            new OA\Property(property: 'file', type: 'string', format: 'binary'),
            new OA\Property(property: 'name', type: 'string'),
        ],
    ),
]
final class FileRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'file' => ['required', 'file'],
            'name' => ['nullable', 'string', 'max:200'],
        ];
    }
}
