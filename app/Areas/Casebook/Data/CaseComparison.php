<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Data;

use OpenApi\Attributes as OA;

/**
 * Two versions of a case beside each other.
 */
#[OA\Schema(description: 'Two versions of a case beside each other.')]
final readonly class CaseComparison
{
    /**
     * @param  list<FieldDiff>  $fields
     * @param  list<StepDiff>  $steps
     */
    public function __construct(
        #[OA\Property] public int $from,
        #[OA\Property] public int $to,
        #[OA\Property(items: new OA\Items(ref: FieldDiff::class))] public array $fields,
        #[OA\Property(items: new OA\Items(ref: StepDiff::class))] public array $steps,
        #[OA\Property] public string $from_at,
        #[OA\Property] public string $to_at,
        #[OA\Property] public string $from_by,
        #[OA\Property] public string $to_by,
    ) {}
}
