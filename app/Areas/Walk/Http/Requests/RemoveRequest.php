<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use LucidStep\App\Support\Http\WhyRule;
use OpenApi\Attributes as OA;

/**
 * Why something is taken out; for a text, the number of the event that holds it.
 */
#[
    OA\Schema(
        required: ['reason'],
        properties: [new OA\Property(property: 'reason', type: 'string'), new OA\Property(property: 'sequence', type: 'integer')],
    ),
]
final class RemoveRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'reason' => ['required', 'string', new WhyRule(), 'max:2000'],
            'sequence' => ['nullable', 'integer', 'min:1'],
        ];
    }
}
