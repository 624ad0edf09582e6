<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Http;

use OpenApi\Attributes as OA;

/**
 * Why something is done that has to have a reason.
 */
#[OA\Schema(required: ['reason'], properties: [new OA\Property(property: 'reason', type: 'string')])]
final class WhyRequest extends ApiRequest
{
    public function rules(): array
    {
        return ['reason' => ['required', 'string', new WhyRule(), 'max:2000']];
    }

    /**
     * @return array<string, string>
     */
    public function messages(): array
    {
        return [...parent::messages(), 'reason.required' => 'Say why in a few words.'];
    }
}
