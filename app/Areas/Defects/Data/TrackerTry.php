<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Data;

use OpenApi\Attributes as OA;

/**
 * What a test call to the tracker came to.
 */
#[OA\Schema(description: 'What a test call to the tracker came to.')]
final readonly class TrackerTry
{
    public function __construct(
        #[OA\Property(description: 'Method and address that was called')] public string $asked,
        #[OA\Property(description: 'Null: none came')] public ?int $status,
        #[OA\Property(description: 'The beginning of the answer')] public string $answer,
        #[OA\Property(description: 'The key that stands in it; empty: none')] public string $key,
        #[OA\Property(description: 'What is wrong; empty: nothing')] public string $problem,
    ) {}
}
