<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Coverage\Data;

use LucidStep\App\Models\RequirementImport;
use OpenApi\Attributes as OA;

/**
 * An import of requirements that was done.
 */
#[OA\Schema(description: 'An import of requirements that was done.')]
final readonly class RequirementImportLine
{
    /**
     * @param  list<string>  $stay
     */
    public function __construct(
        #[OA\Property(format: 'uuid')] public string $id,
        #[OA\Property(description: 'Of the file')] public string $name,
        #[OA\Property] public int $made,
        #[OA\Property] public int $changed,
        #[OA\Property(format: 'date-time')] public string $at,
        #[OA\Property(description: 'It was taken back')] public bool $undone,
        #[
            OA\Property(
                description: 'Taken back just now: keys of those that somebody changed since, which stay',
                type: 'array',
                items: new OA\Items(type: 'string'),
            ),
        ]
        public array $stay = [],
    ) {}

    /**
     * @param  list<string>  $stay
     */
    public static function of(RequirementImport $import, array $stay = []): self
    {
        return new self(
            $import->id,
            $import->name,
            $import->made,
            $import->changed,
            $import->created_at->toIso8601ZuluString(),
            null !== $import->undone_at,
            $stay,
        );
    }
}
