<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Http;

use OpenApi\Attributes as OA;

/**
 * A word of why.
 */
#[OA\Schema(properties: [new OA\Property(property: 'note', type: 'string')])]
final class ReasonRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'note' => ['nullable', 'string', 'max:2000'],
        ];
    }
}
