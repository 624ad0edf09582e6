<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Http\Requests;

use Illuminate\Validation\Rules\Enum;
use LucidStep\App\Support\Http\ApiRequest;
use LucidStep\Core\Defects\DefectRelation;
use OpenApi\Attributes as OA;

/**
 * How a defect stands to another.
 */
#[
    OA\Schema(
        required: ['relation', 'other'],
        properties: [
            new OA\Property(property: 'relation', type: 'string', enum: DefectRelation::class),
            new OA\Property(property: 'other', type: 'string', description: 'The key of the other defect'),
        ],
    ),
]
final class RelationRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'relation' => ['required', new Enum(DefectRelation::class)],
            'other' => ['required', 'string', 'max:24'],
        ];
    }

    public function messages(): array
    {
        return ['other.required' => 'Say which defect, by its key.'];
    }
}
