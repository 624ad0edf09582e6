<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\People\Data;

use LucidStep\Core\Access\AccessPolicies;
use OpenApi\Attributes as OA;

/**
 * What a project says of who may what.
 */
#[OA\Schema(description: 'What a project says of who may what.')]
final readonly class AccessSet
{
    public function __construct(
        #[OA\Property] public bool $readers_see_evidence,
        #[OA\Property] public bool $testers_write_cases,
        #[OA\Property] public bool $second_factor_required,
    ) {}

    public static function from(AccessPolicies $policies): self
    {
        return new self(...$policies->toArray());
    }
}
