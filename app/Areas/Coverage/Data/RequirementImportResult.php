<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Coverage\Data;

use OpenApi\Attributes as OA;

/**
 * What an import would do, or did.
 */
#[OA\Schema(description: 'What an import would do, or did: rows that are refused are left out, the others taken.')]
final readonly class RequirementImportResult
{
    /**
     * @param  list<RequirementColumn>  $columns
     * @param  list<RequirementImportRow>  $rows
     */
    public function __construct(
        #[OA\Property(type: 'array', items: new OA\Items(ref: RequirementColumn::class))] public array $columns,
        #[OA\Property(type: 'array', items: new OA\Items(ref: RequirementImportRow::class))] public array $rows,
        #[
            OA\Property(description: 'null: nothing was written', ref: RequirementImportLine::class, nullable: true),
        ]
        public ?RequirementImportLine $import,
    ) {}
}
