<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Data;

use OpenApi\Attributes as OA;

/**
 * A file of the project that a step or a case shows.
 */
#[OA\Schema(description: 'A file of the project that a step or a case shows.')]
final readonly class FileRef
{
    public function __construct(#[OA\Property] public string $sha256, #[OA\Property] public string $name) {}
}
