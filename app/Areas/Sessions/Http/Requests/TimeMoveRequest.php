<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Sessions\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use OpenApi\Attributes as OA;

/**
 * Time that goes from one share to another of the same split.
 */
#[
    OA\Schema(
        required: ['from', 'to', 'ms'],
        properties: [
            new OA\Property(property: 'from', type: 'string', enum: ['charter', 'opportunity', 'testing', 'investigating', 'setting_up']),
            new OA\Property(property: 'to', type: 'string', enum: ['charter', 'opportunity', 'testing', 'investigating', 'setting_up']),
            new OA\Property(property: 'ms', type: 'integer'),
            new OA\Property(property: 'device_time', type: 'string', nullable: true),
            new OA\Property(property: 'sent_at', type: 'string', nullable: true),
            new OA\Property(property: 'counter', type: 'integer', nullable: true),
        ],
    ),
]
final class TimeMoveRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'from' => ['required', 'in:charter,opportunity,testing,investigating,setting_up'],
            'to' => ['required', 'different:from', 'in:charter,opportunity,testing,investigating,setting_up'],
            'ms' => ['required', 'integer', 'min:0', 'max:864000000'],
            ...self::STAMP,
        ];
    }

    public function messages(): array
    {
        return ['to.different' => 'Choose another share than the one it comes from.'];
    }
}
