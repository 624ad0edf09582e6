<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Data;

use OpenApi\Attributes as OA;

/**
 * An entry that can be chosen together with others.
 */
#[OA\Schema(description: 'An entry that can be chosen together with others.')]
final readonly class EntryChoice
{
    public function __construct(
        #[OA\Property] public string $id,
        #[OA\Property(description: 'Likely, over all rounds')] public int $seconds,
        #[OA\Property(description: 'Somebody has it open')] public bool $walking,
        #[OA\Property] public bool $done,
    ) {}
}
