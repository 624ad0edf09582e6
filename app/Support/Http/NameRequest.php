<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Http;

use OpenApi\Attributes as OA;

/**
 * A name.
 */
#[OA\Schema(required: ['name'], properties: [new OA\Property(property: 'name', type: 'string')])]
final class NameRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'name' => ['required', 'string', 'max:200'],
        ];
    }
}
