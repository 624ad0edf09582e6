<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Data;

use OpenApi\Attributes as OA;

/**
 * What an act on many defects did; it can be undone by its id.
 */
#[OA\Schema(description: 'What an act on many defects did; it can be undone by its id.')]
final readonly class DefectActResult
{
    /**
     * @param  list<RefusedDefect>  $refused
     */
    public function __construct(
        #[OA\Property] public ?string $act_id,
        #[OA\Property] public string $title,
        #[OA\Property] public int $changed,
        #[OA\Property(items: new OA\Items(ref: RefusedDefect::class))] public array $refused,
    ) {}
}
