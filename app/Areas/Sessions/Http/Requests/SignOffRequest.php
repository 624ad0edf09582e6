<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Sessions\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use OpenApi\Attributes as OA;

/**
 * A word of whoever read a session.
 */
#[OA\Schema(properties: [new OA\Property(property: 'note', type: 'string', nullable: true)])]
final class SignOffRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'note' => self::WORDS,
        ];
    }
}
