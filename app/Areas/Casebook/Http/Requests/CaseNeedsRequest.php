<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use OpenApi\Attributes as OA;

/**
 * What a case usually waits for.
 */
#[
    OA\Schema(
        required: ['needs'],
        properties: [new OA\Property(property: 'needs', type: 'array', items: new OA\Items(type: 'object', additionalProperties: true))],
    ),
]
final class CaseNeedsRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'needs' => ['present', 'array', 'max:50'],
            'needs.*.case' => ['required', 'string', 'max:40'],
            'needs.*.kind' => ['required', 'in:after,only_if_passed'],
        ];
    }
}
