<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Data;

use OpenApi\Attributes as OA;

/**
 * It is done.
 */
#[OA\Schema(description: 'It is done.')]
final readonly class Done
{
    public function __construct(#[OA\Property] public string $id, #[OA\Property] public int $revision) {}
}
