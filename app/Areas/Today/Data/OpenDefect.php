<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Today\Data;

use OpenApi\Attributes as OA;

/**
 * A defect that a developer has to do with.
 */
#[OA\Schema(description: 'A defect that a developer has to do with.')]
final readonly class OpenDefect
{
    public function __construct(
        #[
            OA\Property(
                description: 'reopened; with_me; asked_back: I asked for more; fixed: and nobody verified it yet; nobody: has no assignee',
                enum: ['reopened', 'with_me', 'asked_back', 'nobody', 'fixed'],
            ),
        ]
        public string $group,
        #[OA\Property] public string $key,
        #[OA\Property] public string $title,
        #[OA\Property] public string $severity,
        #[OA\Property] public string $state,
        #[OA\Property(description: 'What happened')] public string $actual,
        #[OA\Property(description: 'The step that failed last')] public ?int $step,
        #[OA\Property] public ?string $build,
        #[OA\Property(description: 'The newest picture of that step, by its id')] public ?string $picture,
        #[OA\Property] public string $updated_at,
    ) {}
}
