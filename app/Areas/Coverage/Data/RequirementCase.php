<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Coverage\Data;

use LucidStep\Core\Coverage\CoverageState;
use OpenApi\Attributes as OA;

/**
 * A case that is linked to a requirement.
 */
#[OA\Schema(description: 'A case that is linked to a requirement.')]
final readonly class RequirementCase
{
    public function __construct(
        #[OA\Property(format: 'uuid')] public string $id,
        #[OA\Property] public string $key,
        #[OA\Property] public string $title,
        #[OA\Property(enum: CoverageState::class)] public string $state,
        #[OA\Property(description: 'Configurations and rows it is walked on')] public int $cells,
        #[OA\Property(description: 'Of these walked to their end')] public int $walked,
        #[OA\Property(description: 'Linked before the words of the requirement changed')] public bool $to_look_at,
        #[OA\Property(description: 'Counts for nothing any more')] public bool $retired,
        #[OA\Property(description: 'Open defects that were linked when it was walked')] public int $open_defects,
        #[OA\Property(description: 'Changes between pass and fail on one build')] public bool $unsteady,
        #[OA\Property(format: 'date-time')] public ?string $last_walked_at,
    ) {}
}
