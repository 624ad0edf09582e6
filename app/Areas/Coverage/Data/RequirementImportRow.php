<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Coverage\Data;

use LucidStep\Core\Coverage\ImportedRequirement;
use OpenApi\Attributes as OA;

/**
 * What an import does with a row.
 */
#[OA\Schema(description: 'What an import does with a row.')]
final readonly class RequirementImportRow
{
    /**
     * @param  list<string>  $changes
     */
    public function __construct(
        #[OA\Property(description: 'In the file, from 1')] public int $row,
        #[OA\Property(enum: ['new', 'changed', 'same', 'refused'])] public string $outcome,
        #[OA\Property] public string $title,
        #[OA\Property(description: 'The key of the one it changes')] public ?string $key,
        #[OA\Property(description: 'The row of the file that it stands below')] public ?int $parent_row,
        #[OA\Property(description: 'Fields that change', type: 'array', items: new OA\Items(type: 'string'))] public array $changes,
        #[OA\Property(description: 'Why it cannot be taken')] public ?string $why,
    ) {}

    /**
     * @param  array<string, string>  $keys of requirements by id
     * @param  list<ImportedRequirement>  $all
     */
    public static function of(ImportedRequirement $row, array $keys, array $all): self
    {
        $outcome = match (true) {
            null !== $row->why => 'refused',
            null === $row->id => 'new',
            [] !== $row->changes || $row->comesBack => 'changed',
            default => 'same',
        };
        $parent = null === $row->parentAt ? null : $all[$row->parentAt]->row;
        $changes = $row->comesBack ? [...$row->changes, 'dropped'] : $row->changes;

        return new self($row->row, $outcome, $row->words->title, $keys[$row->id ?? ''] ?? null, $parent, $changes, $row->why);
    }
}
