<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Setup\Data;

use OpenApi\Attributes as OA;

/**
 * A person, with the time they have.
 */
#[OA\Schema(description: 'A person, with the time they have.')]
final readonly class Planner
{
    /**
     * @param  list<string>  $days_off
     */
    public function __construct(
        #[OA\Property] public string $id,
        #[OA\Property] public string $name,
        #[OA\Property] public string $role,
        #[OA\Property] public int $minutes_per_day,
        #[OA\Property(items: new OA\Items(type: 'string'))] public array $days_off,
        #[OA\Property(description: 'The state of their time, to be sent along when it is changed')] public string $seen,
    ) {}
}
