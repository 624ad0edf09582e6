<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\People\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use OpenApi\Attributes as OA;

/**
 * Who gets what is open of somebody who leaves.
 */
#[OA\Schema(properties: [new OA\Property(property: 'to', type: 'string', format: 'uuid', nullable: true, description: 'Null: nobody')])]
final class DepartureRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'to' => ['present', 'nullable', 'uuid'],
        ];
    }
}
