<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use OpenApi\Attributes as OA;

/**
 * Asks for another attempt.
 */
#[OA\Schema(required: ['reason'], properties: [new OA\Property(property: 'reason', type: 'string')])]
final class RetestRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'reason' => ['required', 'string', 'max:2000'],
        ];
    }

    public function messages(): array
    {
        return ['reason.required' => 'Say what should be looked at again.'];
    }
}
