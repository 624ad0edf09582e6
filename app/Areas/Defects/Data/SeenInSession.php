<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Data;

use OpenApi\Attributes as OA;

/**
 * The session in which a defect was seen.
 */
#[OA\Schema(description: 'The session in which a defect was seen.')]
final readonly class SeenInSession
{
    public function __construct(
        #[OA\Property(description: 'Key of the charter')] public string $charter_key,
        #[OA\Property] public string $title,
        #[OA\Property(description: 'Which session of the charter')] public int $number,
        #[OA\Property(description: 'The line that shows it')] public string $line_id,
        #[OA\Property(description: "On the session's clock, in ms")] public int $at_ms,
        #[OA\Property(description: 'How often it was walked again')] public int $tries,
        #[OA\Property(description: 'How often it showed then')] public int $shown,
        #[OA\Property(description: 'Key of the case that came of the same stretch')] public ?string $case_key,
    ) {}
}
