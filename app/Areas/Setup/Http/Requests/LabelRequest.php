<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Setup\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use OpenApi\Attributes as OA;

/**
 * Another name for a label; an empty one takes it off every case.
 */
#[
    OA\Schema(
        required: ['from'],
        properties: [new OA\Property(property: 'from', type: 'string'), new OA\Property(property: 'to', type: 'string')],
    ),
]
final class LabelRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'from' => ['required', 'string', 'max:60'],
            'to' => ['nullable', 'string', 'max:1000'],
        ];
    }
}
