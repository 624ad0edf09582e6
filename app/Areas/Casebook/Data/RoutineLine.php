<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Data;

use OpenApi\Attributes as OA;

/**
 * A routine in a list.
 */
#[OA\Schema(description: 'A routine in a list.')]
final readonly class RoutineLine
{
    /**
     * @param  list<ParameterLine>  $parameters
     */
    public function __construct(
        #[OA\Property] public string $id,
        #[OA\Property] public string $name,
        #[OA\Property] public string $description,
        #[OA\Property(items: new OA\Items(ref: ParameterLine::class))] public array $parameters,
        #[OA\Property] public int $steps,
        #[OA\Property] public int $uses,
        #[OA\Property] public int $revision,
        #[OA\Property] public string $updated_at,
        #[OA\Property] public ?string $binned_at,
    ) {}
}
