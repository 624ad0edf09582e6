<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\People\Http\Requests;

use Illuminate\Validation\Rule;
use LucidStep\App\Support\Http\ApiRequest;
use LucidStep\Core\Access\Role;
use OpenApi\Attributes as OA;

/**
 * People to invite, a line each.
 */
#[
    OA\Schema(
        required: ['text', 'role'],
        properties: [
            new OA\Property(property: 'text', type: 'string', description: 'A line each: an address, and a name and a role if one likes'),
            new OA\Property(property: 'role', type: 'string', enum: ['admin', 'lead', 'tester', 'developer', 'reader']),
        ],
    ),
]
final class InviteRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'text' => ['required', 'string', 'max:1000000'],
            'role' => ['required', Rule::enum(Role::class)],
        ];
    }
}
