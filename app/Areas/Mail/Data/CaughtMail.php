<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Mail\Data;

use OpenApi\Attributes as OA;

/**
 * A mail that was caught instead of sent.
 */
#[OA\Schema(description: 'A mail that was caught instead of sent.')]
final readonly class CaughtMail
{
    public function __construct(
        #[OA\Property] public int $id,
        #[OA\Property] public string $to,
        #[OA\Property] public string $subject,
        #[OA\Property] public string $text,
        #[OA\Property] public string $at,
    ) {}
}
