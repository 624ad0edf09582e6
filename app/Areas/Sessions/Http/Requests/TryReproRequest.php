<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Sessions\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use OpenApi\Attributes as OA;

/**
 * Whether the fault showed when what leads to it was walked again.
 */
#[OA\Schema(required: ['shown'], properties: [new OA\Property(property: 'shown', type: 'boolean')])]
final class TryReproRequest extends ApiRequest
{
    public function rules(): array
    {
        return ['shown' => ['required', 'boolean']];
    }
}
