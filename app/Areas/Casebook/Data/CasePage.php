<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Data;

use OpenApi\Attributes as OA;

/**
 * Some of the cases, and where the next begin. How many there are is asked for apart.
 */
#[OA\Schema(description: 'Some of the cases, and where the next begin. How many there are is asked for apart.')]
final readonly class CasePage
{
    /**
     * @param  list<CaseLine>  $items
     */
    public function __construct(
        #[OA\Property(items: new OA\Items(ref: CaseLine::class))] public array $items,
        #[OA\Property] public ?string $next,
    ) {}
}
