<?php

declare(strict_types=1);

namespace LucidStep\App\Http\Requests;

use OpenApi\Attributes as OA;

/**
 * A CSV file of cases.
 */
#[OA\Schema(required: ['file'], properties: [
    new OA\Property(property: 'file', type: 'string', format: 'binary'),
])]
final class ImportRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'file' => ['required', 'file', 'max:'.intdiv((int) config('lucid.import.max_bytes'), 1024)],
        ];
    }
}
