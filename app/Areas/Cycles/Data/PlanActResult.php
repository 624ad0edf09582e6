<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Data;

use OpenApi\Attributes as OA;

/**
 * An act of planning, and what it left out.
 */
#[OA\Schema(description: 'An act of planning, and what it left out.')]
final readonly class PlanActResult
{
    /**
     * @param  list<RefusedEntry>  $refused
     * @param  list<string>  $affected
     */
    public function __construct(
        #[OA\Property] public ?string $act_id,
        #[OA\Property] public string $title,
        #[OA\Property] public int $count,
        #[OA\Property(items: new OA\Items(ref: RefusedEntry::class))] public array $refused,
        #[OA\Property(items: new OA\Items(type: 'string'))] public array $affected,
    ) {}
}
