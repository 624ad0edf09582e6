<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\People\Http\Requests;

use Illuminate\Validation\Rule;
use LucidStep\App\Support\Http\ApiRequest;
use LucidStep\Core\Access\Role;
use OpenApi\Attributes as OA;

/**
 * A role.
 */
#[
    OA\Schema(
        required: ['role'],
        properties: [new OA\Property(property: 'role', type: 'string', enum: ['admin', 'lead', 'tester', 'developer', 'reader'])],
    ),
]
final class RoleRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'role' => ['required', Rule::enum(Role::class)],
        ];
    }
}
