<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Today\Data;

use LucidStep\App\Areas\Walk\Data\AttemptDetail;
use LucidStep\App\Areas\Walk\Data\EarlierAttempt;
use OpenApi\Attributes as OA;

/**
 * An entry with everything a device needs to walk it alone.
 */
#[OA\Schema(description: 'An entry with everything a device needs to walk it alone.')]
final readonly class PackedEntry
{
    /**
     * @param  list<EarlierAttempt>  $earlier
     */
    public function __construct(
        #[OA\Property] public string $entry_id,
        #[OA\Property] public string $case_version_id,
        #[OA\Property] public AttemptDetail $walk,
        #[OA\Property(items: new OA\Items(ref: EarlierAttempt::class))] public array $earlier,
    ) {}
}
