<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Setup\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use LucidStep\Core\Evidence\HandsetAddress;
use OpenApi\Attributes as OA;

/**
 * The addresses that the handset may show, in order.
 */
#[
    OA\Schema(
        required: ['addresses'],
        properties: [
            new OA\Property(
                property: 'addresses',
                type: 'array',
                items: new OA\Items(
                    type: 'object',
                    required: ['name', 'address'],
                    properties: [new OA\Property(property: 'name', type: 'string'), new OA\Property(property: 'address', type: 'string')],
                ),
            ),
            new OA\Property(property: 'seen', type: 'string', description: 'The state that one saw'),
        ],
    ),
]
final class HandsetAddressesRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'addresses' => ['present', 'array', 'max:' . HandsetAddress::MOST],
            'addresses.*.name' => ['required', 'string', 'max:' . HandsetAddress::LONGEST_NAME],
            'addresses.*.address' => ['required', 'string', 'max:' . HandsetAddress::LONGEST],
            'seen' => ['nullable', 'string', 'max:64'],
        ];
    }

    /**
     * @return list<array{name: string, address: string}>
     */
    public function addresses(): array
    {
        return array_values(
            array_map(
                static fn(array $a): array => ['name' => (string) $a['name'], 'address' => (string) $a['address']],
                (array) $this->validated('addresses'),
            ),
        );
    }
}
