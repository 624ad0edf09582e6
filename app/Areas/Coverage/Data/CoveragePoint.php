<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Coverage\Data;

use OpenApi\Attributes as OA;

/**
 * What was proven at the end of a day, or is by now.
 */
#[OA\Schema(description: 'What was proven at the end of a day, or is by now.')]
final readonly class CoveragePoint
{
    /**
     * @param  list<StateCount>  $counts
     */
    public function __construct(
        #[OA\Property(description: 'The day in the zone of the project', format: 'date')] public string $day,
        #[
            OA\Property(
                description: 'Over all requirements that have cases or nothing below them, worst first',
                type: 'array',
                items: new OA\Items(ref: StateCount::class),
            ),
        ]
        public array $counts,
        #[OA\Property(description: 'Different cases that were linked')] public int $cases,
        #[OA\Property] public int $walked,
    ) {}
}
