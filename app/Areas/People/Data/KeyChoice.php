<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\People\Data;

use OpenApi\Attributes as OA;

/**
 * A key that a person presses instead of another.
 */
#[OA\Schema(description: 'A key that a person presses instead of another.', required: ['key', 'pressed'])]
final readonly class KeyChoice
{
    public function __construct(
        #[OA\Property(description: 'As pages name it')] public string $key,
        #[OA\Property(description: 'What is pressed for it')] public string $pressed,
    ) {}
}
