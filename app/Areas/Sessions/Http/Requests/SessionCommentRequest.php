<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Sessions\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use OpenApi\Attributes as OA;

/**
 * What is said of a session, and who is asked to read it.
 */
#[
    OA\Schema(
        required: ['text'],
        properties: [
            new OA\Property(property: 'text', type: 'string', description: 'In Markdown'),
            new OA\Property(property: 'to_id', type: 'string', format: 'uuid', nullable: true),
        ],
    ),
]
final class SessionCommentRequest extends ApiRequest
{
    public function rules(): array
    {
        return ['text' => self::WORDS, 'to_id' => ['nullable', 'uuid']];
    }
}
