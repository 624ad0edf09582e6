<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Today\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use OpenApi\Attributes as OA;

/**
 * Up to when one has seen what changed.
 */
#[OA\Schema(required: ['as_of'], properties: [new OA\Property(property: 'as_of', type: 'string')])]
final class SeenRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'as_of' => ['required', 'date'],
        ];
    }
}
