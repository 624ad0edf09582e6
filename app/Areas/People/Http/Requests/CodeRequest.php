<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\People\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use OpenApi\Attributes as OA;

/**
 * A code of a second factor.
 */
#[OA\Schema(required: ['code'], properties: [new OA\Property(property: 'code', type: 'string')])]
final class CodeRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'code' => ['required', 'string', 'max:100'],
        ];
    }
}
