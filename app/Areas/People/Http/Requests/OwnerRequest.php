<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\People\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use OpenApi\Attributes as OA;

/**
 * Whether a person is an owner of the installation.
 */
#[OA\Schema(required: ['is_owner'], properties: [new OA\Property(property: 'is_owner', type: 'boolean')])]
final class OwnerRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'is_owner' => ['required', 'boolean'],
        ];
    }
}
