<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Coverage\Data;

use OpenApi\Attributes as OA;

/**
 * A requirement with its words, its cases and what became of it.
 */
#[OA\Schema(description: 'A requirement with its words, its cases and what became of it.')]
final readonly class RequirementDetail
{
    /**
     * @param  list<RequirementName>  $above
     * @param  list<RequirementCase>  $cases
     * @param  list<RequirementChange>  $history
     */
    public function __construct(
        #[OA\Property(format: 'uuid')] public string $id,
        #[OA\Property] public string $key,
        #[OA\Property] public string $title,
        #[OA\Property(description: 'Markdown')] public string $text,
        #[OA\Property(format: 'uuid')] public ?string $parent_id,
        #[OA\Property(description: 'What another program calls it')] public ?string $external_id,
        #[
            OA\Property(
                description: 'What other programs say of it beside, by name',
                type: 'object',
                additionalProperties: new OA\AdditionalProperties(type: 'string'),
            ),
        ]
        public object $details,
        #[OA\Property] public int $revision,
        #[OA\Property(description: 'It need not hold any more')] public bool $dropped,
        #[
            OA\Property(description: 'Those above it, the topmost first', type: 'array', items: new OA\Items(ref: RequirementName::class)),
        ]
        public array $above,
        #[OA\Property(type: 'array', items: new OA\Items(ref: RequirementCase::class))] public array $cases,
        #[
            OA\Property(description: 'The newest first', type: 'array', items: new OA\Items(ref: RequirementChange::class)),
        ]
        public array $history,
    ) {}
}
