<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\People\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use OpenApi\Attributes as OA;

/**
 * An address that works once, and the password that one chooses.
 */
#[
    OA\Schema(
        required: ['token', 'password'],
        properties: [
            new OA\Property(property: 'token', type: 'string'),
            new OA\Property(property: 'email', type: 'string', description: 'Of the first owner'),
            new OA\Property(property: 'name', type: 'string', description: 'Of the first owner'),
            new OA\Property(property: 'password', type: 'string'),
            new OA\Property(property: 'code', type: 'string', description: 'Of a second factor; asked for by an error'),
        ],
    ),
]
final class LinkUseRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'token' => ['required', 'string', 'max:200'],
            'email' => ['nullable', 'string', 'max:254', 'email'],
            'name' => ['nullable', 'string', 'max:200'],
            'password' => ['required', 'string', 'max:1000'],
            'code' => ['nullable', 'string', 'max:100'],
        ];
    }
}
