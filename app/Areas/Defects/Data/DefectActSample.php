<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Data;

use OpenApi\Attributes as OA;

/**
 * What would change in one defect.
 */
#[OA\Schema(description: 'What would change in one defect.')]
final readonly class DefectActSample
{
    /**
     * @param  list<FieldChange>  $changes
     */
    public function __construct(
        #[OA\Property] public string $key,
        #[OA\Property] public string $title,
        #[OA\Property(items: new OA\Items(ref: FieldChange::class))] public array $changes,
    ) {}
}
