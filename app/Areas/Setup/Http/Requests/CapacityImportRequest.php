<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Setup\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use OpenApi\Attributes as OA;

/**
 * A list of people's time: a line for each, with a person, a time a day and days off.
 */
#[OA\Schema(required: ['text'], properties: [new OA\Property(property: 'text', type: 'string')])]
final class CapacityImportRequest extends ApiRequest
{
    public function rules(): array
    {
        return ['text' => ['required', 'string', 'max:1000000']];
    }
}
