<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Coverage\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use LucidStep\App\Support\Http\UuidList;
use OpenApi\Attributes as OA;

/**
 * Which cases fit the words of a requirement as they are now.
 */
#[
    OA\Schema(
        properties: [
            new OA\Property(
                property: 'cases',
                type: 'array',
                nullable: true,
                items: new OA\Items(type: 'string', format: 'uuid'),
                description: 'null: all that are linked',
            ),
        ],
    ),
]
final class ConfirmCasesRequest extends ApiRequest
{
    public function rules(): array
    {
        return ['cases' => ['nullable', 'array', 'max:2000', new UuidList()]];
    }
}
