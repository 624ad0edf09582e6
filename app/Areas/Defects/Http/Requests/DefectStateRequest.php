<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Http\Requests;

use Illuminate\Validation\Rules\Enum;
use LucidStep\App\Support\Http\ApiRequest;
use LucidStep\Core\Defects\DefectState;
use OpenApi\Attributes as OA;

/**
 * A defect's next state.
 */
#[
    OA\Schema(
        required: ['state'],
        properties: [
            new OA\Property(property: 'state', type: 'string', enum: DefectState::class),
            new OA\Property(property: 'note', type: 'string', nullable: true),
            new OA\Property(property: 'build_id', type: 'string', nullable: true, format: 'uuid'),
            new OA\Property(property: 'anyway', type: 'boolean', description: 'Close it although some that stand under it are open'),
            new OA\Property(property: 'duplicate_of', type: 'string', nullable: true, description: 'The key of the other defect'),
            new OA\Property(
                property: 'seen',
                type: 'string',
                nullable: true,
                enum: DefectState::class,
                description: 'The state that one saw',
            ),
        ],
    ),
]
final class DefectStateRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'state' => ['required', new Enum(DefectState::class)],
            'note' => self::WORDS,
            'build_id' => ['nullable', 'uuid'],
            'anyway' => ['boolean'],
            'duplicate_of' => ['nullable', 'string', 'max:24'],
            'seen' => ['nullable', new Enum(DefectState::class)],
        ];
    }
}
