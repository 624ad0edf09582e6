<?php

declare(strict_types=1);

namespace LucidStep\App\Http\Resources;

use OpenApi\Attributes as OA;

/**
 * The answer was kept.
 */
#[OA\Schema(description: 'The answer was kept.')]
final readonly class MessageDone
{
    public function __construct(
        #[OA\Property]
        public CaseMessageLine $message,
        #[OA\Property]
        public int $case_revision,
    ) {
    }
}
