<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\People\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use OpenApi\Attributes as OA;

/**
 * Another password, by whoever knows the one before.
 */
#[
    OA\Schema(
        required: ['old', 'password'],
        properties: [new OA\Property(property: 'old', type: 'string'), new OA\Property(property: 'password', type: 'string')],
    ),
]
final class PasswordRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'old' => ['required', 'string', 'max:1000'],
            'password' => ['required', 'string', 'max:1000'],
        ];
    }
}
