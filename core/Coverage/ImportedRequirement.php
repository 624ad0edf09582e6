<?php

declare(strict_types=1);

namespace LucidStep\Core\Coverage;

/**
 * What an import does with a row.
 */
final readonly class ImportedRequirement
{
    /**
     * @param  int  $row in the file
     * @param  ?string  $id  the requirement that it changes; null: a new one
     * @param  RequirementWords  $words what it will say
     * @param  ?int  $parentAt the place of the row above it, among all rows
     * @param  ?string  $parentId the requirement above it, where that is not in the file
     * @param  bool  $moves whether the file says where it stands
     * @param  list<string>  $changes fields
     * @param  bool  $comesBack whether it was dropped
     * @param  ?string  $why it cannot be taken
     */
    public function __construct(
        public int $row,
        public ?string $id,
        public RequirementWords $words,
        public ?int $parentAt,
        public ?string $parentId,
        public bool $moves,
        public array $changes,
        public bool $comesBack,
        public ?string $why,
    ) {}
}
