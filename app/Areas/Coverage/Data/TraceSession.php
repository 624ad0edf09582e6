<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Coverage\Data;

use OpenApi\Attributes as OA;

/**
 * A session that explored a requirement, or from which a case or a defect came.
 */
#[OA\Schema(description: 'A session that explored a requirement, or from which a case or a defect came.')]
final readonly class TraceSession
{
    /**
     * @param  list<TraceLink>  $cases
     * @param  list<TraceLink>  $defects
     */
    public function __construct(
        #[OA\Property(description: 'Key and title of its charter')] public TraceLink $charter,
        #[OA\Property] public ?TraceLink $requirement,
        #[OA\Property(format: 'date-time')] public string $started_at,
        #[OA\Property(description: 'Cases that came of it', type: 'array', items: new OA\Items(ref: TraceLink::class))] public array $cases,
        #[
            OA\Property(description: 'Defects that came of it', type: 'array', items: new OA\Items(ref: TraceLink::class)),
        ]
        public array $defects,
    ) {}
}
