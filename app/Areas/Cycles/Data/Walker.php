<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Data;

use LucidStep\App\Support\Data\Person;
use OpenApi\Attributes as OA;

/**
 * Somebody who has an entry open now.
 */
#[OA\Schema(description: 'Somebody who has an entry open now.')]
final readonly class Walker
{
    public function __construct(
        #[OA\Property] public Person $person,
        #[OA\Property] public string $case_key,
        #[OA\Property] public string $entry_id,
    ) {}
}
