<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\People\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use OpenApi\Attributes as OA;

/**
 * An invitation to accept, and who one is when one has no account.
 */
#[
    OA\Schema(
        required: ['token'],
        properties: [
            new OA\Property(property: 'token', type: 'string'),
            new OA\Property(property: 'name', type: 'string', description: 'Of a new account'),
            new OA\Property(property: 'password', type: 'string', description: 'Of a new account'),
        ],
    ),
]
final class AcceptRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'token' => ['required', 'string', 'max:200'],
            'name' => ['nullable', 'string', 'max:200'],
            'password' => ['nullable', 'string', 'max:1000'],
        ];
    }
}
