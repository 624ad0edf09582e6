<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Sessions\Http\Requests;

use LucidStep\App\Areas\Sessions\Actions\RunSession;
use LucidStep\App\Support\Http\ApiRequest;
use OpenApi\Attributes as OA;

/**
 * The whole time box of a session, from now on.
 */
#[
    OA\Schema(
        required: ['minutes'],
        properties: [
            new OA\Property(property: 'minutes', type: 'integer'),
            new OA\Property(property: 'device_time', type: 'string', nullable: true),
            new OA\Property(property: 'sent_at', type: 'string', nullable: true),
            new OA\Property(property: 'counter', type: 'integer', nullable: true),
        ],
    ),
]
final class BoxRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'minutes' => ['required', 'integer', 'min:1', 'max:' . RunSession::LONGEST_BOX],
            ...self::STAMP,
        ];
    }

    public function messages(): array
    {
        return ['minutes' => 'A time box has 1 to 1440 minutes.'];
    }
}
