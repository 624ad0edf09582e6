<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Http\Requests;

use LucidStep\App\Areas\Casebook\Actions\DismissSimilar;
use LucidStep\App\Support\Http\ApiRequest;
use OpenApi\Attributes as OA;

/**
 * Cases that differ on purpose.
 */
#[
    OA\Schema(
        required: ['cases'],
        properties: [
            new OA\Property(property: 'cases', type: 'array', items: new OA\Items(type: 'string', format: 'uuid')),
            new OA\Property(property: 'differ', description: 'False takes it back.', type: 'boolean'),
        ],
    ),
]
final class DifferencesRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'cases' => ['required', 'array', 'min:2', 'max:' . DismissSimilar::MOST],
            'cases.*' => ['uuid'],
            'differ' => ['nullable', 'boolean'],
        ];
    }
}
