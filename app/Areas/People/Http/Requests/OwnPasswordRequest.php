<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\People\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use OpenApi\Attributes as OA;

/**
 * One's password, to show that it is oneself.
 */
#[OA\Schema(required: ['password'], properties: [new OA\Property(property: 'password', type: 'string')])]
final class OwnPasswordRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'password' => ['required', 'string', 'max:1000'],
        ];
    }
}
