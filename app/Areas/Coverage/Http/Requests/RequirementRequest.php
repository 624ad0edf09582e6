<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Coverage\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use LucidStep\Core\Coverage\RequirementWords;
use OpenApi\Attributes as OA;

/**
 * What a requirement says.
 */
#[
    OA\Schema(
        required: ['title'],
        properties: [
            new OA\Property(property: 'title', type: 'string'),
            new OA\Property(property: 'text', type: 'string', nullable: true, description: 'Markdown'),
            new OA\Property(property: 'external_id', type: 'string', nullable: true, description: 'What another program calls it'),
            new OA\Property(property: 'parent_id', type: 'string', format: 'uuid', nullable: true, description: 'Of a new one'),
            new OA\Property(property: 'revision', type: 'integer', nullable: true, description: 'That one saw; needed to change one'),
        ],
    ),
]
final class RequirementRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'title' => ['required', 'string', 'max:' . RequirementWords::LONGEST_TITLE],
            'text' => ['nullable', 'string', 'max:' . RequirementWords::LONGEST_TEXT],
            'external_id' => ['nullable', 'string', 'max:' . RequirementWords::LONGEST_ID],
            'parent_id' => ['nullable', 'uuid'],
            'revision' => ['nullable', 'integer', 'min:1'],
        ];
    }

    public function messages(): array
    {
        return ['title.required' => 'Say what must hold.'];
    }

    /**
     * @param  array<string, string>  $details that stay
     */
    public function words(array $details = []): RequirementWords
    {
        $id = trim($this->string('external_id')->toString());

        return new RequirementWords(
            trim((string) $this->validated('title')),
            trim((string) $this->validated('text')),
            '' === $id ? null : trim((string) $this->validated('external_id')),
            $details,
        );
    }
}
