<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use OpenApi\Attributes as OA;

/**
 * Whom it is about: who is told of everything that becomes of a defect, or no more.
 */
#[
    OA\Schema(
        properties: [new OA\Property(property: 'person_id', type: 'string', nullable: true, format: 'uuid', description: 'Null: oneself')],
    ),
]
final class WatchRequest extends ApiRequest
{
    public function rules(): array
    {
        return ['person_id' => ['nullable', 'uuid']];
    }
}
