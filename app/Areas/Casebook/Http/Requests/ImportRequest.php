<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use OpenApi\Attributes as OA;

/**
 * A file of cases: CSV, XLSX or JSON.
 */
#[OA\Schema(required: ['file'], properties: [new OA\Property(property: 'file', type: 'string', format: 'binary')])]
final class ImportRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'file' => ['required', 'file', 'max:' . intdiv((int) config('lucid.import.max_bytes'), 1024)],
        ];
    }

    public function messages(): array
    {
        return [
            'file.required' => 'Choose a file.',
            'file.max' => sprintf(
                'The file is larger than %d MB, which is the most that is read at once. Split it, or take out what is ' .
                    'not needed. Nothing was kept of it.',
                intdiv((int) config('lucid.import.max_bytes'), 1_048_576),
            ),
        ];
    }
}
