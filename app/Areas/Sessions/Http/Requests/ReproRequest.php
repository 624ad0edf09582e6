<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Sessions\Http\Requests;

use LucidStep\App\Areas\Sessions\Data\ReproStep;
use LucidStep\App\Support\Http\ApiRequest;
use OpenApi\Attributes as OA;

/**
 * What leads to a fault, in order.
 */
#[
    OA\Schema(
        required: ['steps'],
        properties: [
            new OA\Property(property: 'steps', type: 'array', items: new OA\Items(ref: ReproStep::class)),
            new OA\Property(property: 'version', type: 'integer', description: 'From which one began; 0: nobody saved it yet'),
        ],
    ),
]
final class ReproRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'steps' => ['required', 'array', 'max:200'],
            'steps.*.line' => ['nullable', 'uuid'],
            'steps.*.words' => ['required', 'string', 'max:2000'],
            'version' => ['integer', 'min:0'],
        ];
    }

    public function messages(): array
    {
        return [
            'steps.required' => 'Nothing is left that leads there. Keep at least one step.',
            'steps.*.words.required' => 'Say what is done.',
        ];
    }

    /**
     * @return list<array{line: ?string, words: string}>
     */
    public function steps(): array
    {
        return array_values(
            array_map(
                static fn(array $s): array => [
                    'line' => \is_string($s['line'] ?? null) ? $s['line'] : null,
                    'words' => trim((string) $s['words']),
                ],
                (array) $this->validated('steps'),
            ),
        );
    }
}
