<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\People\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use OpenApi\Attributes as OA;

/**
 * A project to make.
 */
#[
    OA\Schema(
        required: ['code', 'name', 'time_zone'],
        properties: [
            new OA\Property(property: 'code', type: 'string', pattern: '^[A-Z][A-Z0-9]{1,9}$'),
            new OA\Property(property: 'name', type: 'string'),
            new OA\Property(property: 'time_zone', type: 'string'),
            new OA\Property(
                property: 'like',
                type: 'string',
                format: 'uuid',
                nullable: true,
                description: 'The project whose lists, policies, axes and fields it begins with',
            ),
        ],
    ),
]
final class ProjectRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'code' => ['required', 'string', 'regex:/^[A-Z][A-Z0-9]{1,9}$/D'],
            'name' => ['required', 'string', 'max:200'],
            'time_zone' => ['required', 'string', 'timezone:all_with_bc'],
            'like' => ['nullable', 'uuid'],
        ];
    }

    public function messages(): array
    {
        return ['code.regex' => 'A code is two to ten capital letters and digits, and begins with a letter.'];
    }
}
