<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Data;

use LucidStep\App\Areas\Evidence\Data\EvidenceItem;
use LucidStep\App\Support\Data\Named;
use LucidStep\App\Support\Data\Person;
use OpenApi\Attributes as OA;

/**
 * Where the failing step passed, to be laid beside the fail.
 */
#[OA\Schema(description: 'Where the failing step passed, to be laid beside the fail.')]
final readonly class PassedBeside
{
    /**
     * @param  list<BesideDifference>  $differences nothing that is equal
     * @param  list<EvidenceItem>  $evidence of the step there
     */
    public function __construct(
        #[OA\Property] public string $entry_id,
        #[OA\Property] public string $attempt_id,
        #[OA\Property] public int $attempt_number,
        #[OA\Property] public int $round,
        #[OA\Property] public Person $tester,
        #[OA\Property] public ?Named $build,
        #[OA\Property] public string $finished_at,
        #[OA\Property(description: 'Before the fail, by builds and then by time')] public bool $is_before,
        #[OA\Property] public bool $same_configuration,
        #[OA\Property] public bool $same_data,
        #[OA\Property(items: new OA\Items(ref: BesideDifference::class))] public array $differences,
        #[OA\Property(items: new OA\Items(ref: EvidenceItem::class))] public array $evidence,
    ) {}
}
