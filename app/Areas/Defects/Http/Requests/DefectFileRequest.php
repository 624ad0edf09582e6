<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use OpenApi\Attributes as OA;

/**
 * A file for a defect, or for what somebody is about to say of it.
 */
#[
    OA\Schema(
        required: ['file'],
        properties: [
            new OA\Property(property: 'file', type: 'string', format: 'binary'),
            new OA\Property(property: 'name', type: 'string', nullable: true),
            new OA\Property(property: 'id', type: 'string', nullable: true, format: 'uuid', description: 'As the device chose it'),
            new OA\Property(
                property: 'comment',
                type: 'string',
                nullable: true,
                format: 'uuid',
                description: 'What it goes with, by the id that it will have; null: the defect itself',
            ),
        ],
    ),
]
final class DefectFileRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'file' => ['required', 'file'],
            'name' => ['nullable', 'string', 'max:200'],
            'id' => ['nullable', 'uuid'],
            'comment' => ['nullable', 'uuid'],
        ];
    }
}
