<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use OpenApi\Attributes as OA;

/**
 * A version to bring back.
 */
#[OA\Schema(required: ['version'], properties: [new OA\Property(property: 'version', type: 'integer')])]
final class VersionRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'version' => ['required', 'integer', 'min:1', 'max:1000000'],
        ];
    }
}
