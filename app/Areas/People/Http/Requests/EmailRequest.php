<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\People\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use OpenApi\Attributes as OA;

/**
 * A mail address.
 */
#[OA\Schema(required: ['email'], properties: [new OA\Property(property: 'email', type: 'string')])]
final class EmailRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'email' => ['required', 'string', 'max:254'],
        ];
    }
}
