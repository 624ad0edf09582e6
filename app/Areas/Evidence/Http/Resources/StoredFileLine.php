<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Evidence\Http\Resources;

use OpenApi\Attributes as OA;

/**
 * A file kept in the project.
 */
#[OA\Schema(description: 'A file kept in the project.')]
final readonly class StoredFileLine
{
    public function __construct(
        #[OA\Property] public string $sha256,
        #[OA\Property] public string $name,
        #[OA\Property] public ?int $width,
        #[OA\Property] public ?int $height,
    ) {}
}
