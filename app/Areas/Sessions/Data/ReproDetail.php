<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Sessions\Data;

use LucidStep\App\Areas\Defects\Data\DefectName;
use LucidStep\App\Support\Data\Person;
use OpenApi\Attributes as OA;

/**
 * What leads to a fault, as somebody trimmed it, how often it showed, and what came of it.
 */
#[OA\Schema(description: 'What leads to a fault, as somebody trimmed it, how often it showed, and what came of it.')]
final readonly class ReproDetail
{
    /**
     * @param  list<ReproStep>  $steps
     */
    public function __construct(
        #[OA\Property(description: 'The line that shows the fault')] public string $line_id,
        #[OA\Property(description: "On the session's clock, in ms")] public int $at_ms,
        #[OA\Property(description: 'What that line says')] public string $words,
        #[OA\Property(items: new OA\Items(ref: ReproStep::class))] public array $steps,
        #[OA\Property(description: 'How often it was walked again')] public int $tries,
        #[OA\Property(description: 'How often it showed then')] public int $shown,
        #[OA\Property] public ?DefectName $defect,
        #[OA\Property(description: 'Key of the case that was made of it')] public ?string $case_key,
        #[OA\Property] public ?string $case_title,
        #[OA\Property] public int $version,
        #[OA\Property] public Person $saved_by,
        #[OA\Property] public string $saved_at,
    ) {}
}
