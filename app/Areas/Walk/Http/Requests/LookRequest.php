<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use LucidStep\App\Support\Http\WhyRule;
use OpenApi\Attributes as OA;

/**
 * Why a lead should look at it.
 */
#[OA\Schema(required: ['note'], properties: [new OA\Property(property: 'note', type: 'string')])]
final class LookRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'note' => ['required', 'string', new WhyRule(), 'max:2000'],
        ];
    }
}
