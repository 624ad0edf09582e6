<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Evidence\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use OpenApi\Attributes as OA;

/**
 * Parts of a reference picture that a comparison leaves out.
 */
#[
    OA\Schema(
        required: ['regions'],
        properties: [new OA\Property(property: 'regions', type: 'array', items: new OA\Items(type: 'object', additionalProperties: true))],
    ),
]
final class RegionsRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'regions' => ['present', 'array', 'max:100'],
            'regions.*.x' => ['required', 'integer', 'min:0', 'max:20000'],
            'regions.*.y' => ['required', 'integer', 'min:0', 'max:20000'],
            'regions.*.width' => ['required', 'integer', 'min:1', 'max:20000'],
            'regions.*.height' => ['required', 'integer', 'min:1', 'max:20000'],
        ];
    }
}
