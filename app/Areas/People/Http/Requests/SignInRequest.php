<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\People\Http\Requests;

use Illuminate\Support\Str;
use LucidStep\App\Support\Http\ApiRequest;
use OpenApi\Attributes as OA;

/**
 * A sign-in.
 */
#[
    OA\Schema(
        required: ['email', 'password'],
        properties: [
            new OA\Property(property: 'email', type: 'string'),
            new OA\Property(property: 'password', type: 'string'),
            new OA\Property(property: 'code', type: 'string', description: 'Of a second factor, or a recovery code; asked for by an error'),
        ],
    ),
]
final class SignInRequest extends ApiRequest
{
    /**
     * The address as it is kept, and as failed tries are counted by.
     */
    public static function address(mixed $typed): string
    {
        return \is_string($typed) ? Str::lower(trim($typed)) : '';
    }

    public function rules(): array
    {
        return [
            'email' => ['required', 'string', 'max:300'],
            'password' => ['required', 'string', 'max:1000'],
            'code' => ['nullable', 'string', 'max:100'],
        ];
    }
}
