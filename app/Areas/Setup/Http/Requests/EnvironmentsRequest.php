<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Setup\Http\Requests;

use LucidStep\App\Areas\Setup\Data\EnvironmentInput;
use LucidStep\App\Support\Http\ApiRequest;
use LucidStep\Core\Evidence\HandsetAddress;
use OpenApi\Attributes as OA;

/**
 * The environments of a project, in order.
 */
#[
    OA\Schema(
        required: ['environments'],
        properties: [
            new OA\Property(
                property: 'environments',
                type: 'array',
                items: new OA\Items(
                    type: 'object',
                    required: ['name'],
                    properties: [
                        new OA\Property(
                            property: 'id',
                            type: 'string',
                            format: 'uuid',
                            nullable: true,
                            description: 'Of one that is changed',
                        ),
                        new OA\Property(property: 'name', type: 'string'),
                        new OA\Property(property: 'address', type: 'string'),
                        new OA\Property(property: 'build_id', type: 'string', format: 'uuid', nullable: true),
                        new OA\Property(property: 'notes', type: 'string'),
                        new OA\Property(
                            property: 'observed',
                            type: 'boolean',
                            description: 'Whether its pages may report what is done on them to a session',
                        ),
                    ],
                ),
            ),
            new OA\Property(property: 'seen', type: 'string', description: 'The state that one saw'),
        ],
    ),
]
final class EnvironmentsRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'environments' => ['present', 'array', 'max:' . HandsetAddress::MOST],
            'environments.*.id' => ['nullable', 'uuid'],
            'environments.*.name' => ['required', 'string', 'max:' . HandsetAddress::LONGEST_NAME],
            'environments.*.address' => ['nullable', 'string', 'max:' . HandsetAddress::LONGEST],
            'environments.*.build_id' => ['nullable', 'uuid'],
            'environments.*.notes' => ['nullable', 'string', 'max:2000'],
            'environments.*.observed' => ['boolean'],
            'seen' => ['nullable', 'string', 'max:64'],
        ];
    }

    /**
     * @return list<EnvironmentInput>
     */
    public function environments(): array
    {
        return array_values(
            array_map(
                static fn(array $e): EnvironmentInput => new EnvironmentInput(
                    $e['id'] ?? null,
                    trim((string) $e['name']),
                    trim((string) ($e['address'] ?? '')),
                    $e['build_id'] ?? null,
                    trim((string) ($e['notes'] ?? '')),
                    (bool) ($e['observed'] ?? false),
                ),
                (array) $this->validated('environments'),
            ),
        );
    }
}
