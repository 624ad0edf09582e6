<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Data;

use OpenApi\Attributes as OA;

/**
 * What a clone would be.
 */
#[OA\Schema(description: 'What a clone would be.')]
final readonly class ClonePreview
{
    /**
     * @param  list<DateMove>  $moves
     * @param  list<string>  $faults why it cannot be made
     * @param  list<string>  $notes what the clone cannot have
     */
    public function __construct(
        #[OA\Property(items: new OA\Items(ref: DateMove::class))] public array $moves,
        #[OA\Property] public int $days,
        #[OA\Property(items: new OA\Items(type: 'string'))] public array $faults,
        #[OA\Property(description: 'What the clone cannot have.', items: new OA\Items(type: 'string'))] public array $notes,
    ) {}
}
