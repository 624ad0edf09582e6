<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\People\Data;

use LucidStep\App\Support\Data\Person;
use OpenApi\Attributes as OA;

/**
 * A project that is no more.
 */
#[OA\Schema(description: 'A project that is no more.')]
final readonly class DeletedProject
{
    public function __construct(
        #[OA\Property] public string $code,
        #[OA\Property] public string $name,
        #[OA\Property(description: 'null: somebody without an account any more')] public ?Person $by,
        #[OA\Property(format: 'date-time')] public string $asked_at,
        #[OA\Property(description: 'null while its rows and files go', format: 'date-time')] public ?string $done_at,
    ) {}
}
