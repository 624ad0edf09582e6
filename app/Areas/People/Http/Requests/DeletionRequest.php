<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\People\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use OpenApi\Attributes as OA;

/**
 * The name of the project that is to be deleted, typed to be sure.
 */
#[OA\Schema(required: ['name'], properties: [new OA\Property(property: 'name', type: 'string')])]
final class DeletionRequest extends ApiRequest
{
    public function rules(): array
    {
        return ['name' => ['required', 'string', 'max:200']];
    }
}
