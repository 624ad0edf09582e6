<?php

declare(strict_types=1);

namespace LucidStep\App\Http\Resources;

use OpenApi\Attributes as OA;

/**
 * Something that was done to a cycle.
 */
#[OA\Schema(description: 'Something that was done to a cycle.')]
final readonly class LogEntry
{
    public function __construct(
        #[OA\Property]
        public int $id,
        #[OA\Property]
        public string $at,
        #[OA\Property]
        public ?Person $by,
        #[OA\Property]
        public string $text,
        #[OA\Property]
        public string $reason,
        #[OA\Property]
        public ?string $act_id,
    ) {
    }
}
