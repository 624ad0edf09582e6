<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\People\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use OpenApi\Attributes as OA;

/**
 * What a project says of who may what; what is left out stays.
 */
#[
    OA\Schema(
        properties: [
            new OA\Property(property: 'readers_see_evidence', type: 'boolean'),
            new OA\Property(property: 'testers_write_cases', type: 'boolean'),
            new OA\Property(property: 'second_factor_required', type: 'boolean'),
        ],
    ),
]
final class AccessRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'readers_see_evidence' => ['boolean'],
            'testers_write_cases' => ['boolean'],
            'second_factor_required' => ['boolean'],
        ];
    }
}
