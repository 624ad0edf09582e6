<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Data;

use LucidStep\App\Areas\Evidence\Data\EvidenceItem;
use LucidStep\App\Support\Data\Named;
use LucidStep\App\Support\Data\Person;
use OpenApi\Attributes as OA;

/**
 * How to get to a fault: the newest walk in which it was met, step by step, and where the failing step passed.
 */
#[OA\Schema(description: 'How to get to a fault: the newest walk in which it was met, step by step, and where the failing step passed.')]
final readonly class Reproduction
{
    /**
     * @param  list<ReproductionStep>  $steps up to the failing one, without those that nobody walked
     * @param  list<EvidenceItem>  $evidence of the failing step, the newest first
     */
    public function __construct(
        #[OA\Property] public string $entry_id,
        #[OA\Property] public string $attempt_id,
        #[OA\Property] public int $attempt_number,
        #[OA\Property] public int $round,
        #[OA\Property] public string $case_key,
        #[OA\Property] public string $case_title,
        #[OA\Property] public string $preconditions,
        #[OA\Property(description: 'How many steps the case has')] public int $of_steps,
        #[OA\Property] public ?Named $build,
        #[OA\Property] public ?Named $configuration,
        #[OA\Property] public string $environment,
        #[OA\Property] public Person $tester,
        #[OA\Property] public ?int $failing,
        #[OA\Property(items: new OA\Items(ref: ReproductionStep::class))] public array $steps,
        #[OA\Property(items: new OA\Items(ref: EvidenceItem::class))] public array $evidence,
        #[OA\Property] public ?PassedBeside $beside,
    ) {}
}
