<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Today\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use OpenApi\Attributes as OA;

/**
 * Notes that follow a person through the day.
 */
#[OA\Schema(properties: [new OA\Property(property: 'text', type: 'string')])]
final class ScratchRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'text' => ['present', 'nullable', 'string', 'max:20000'],
        ];
    }
}
