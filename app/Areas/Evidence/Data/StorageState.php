<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Evidence\Data;

use OpenApi\Attributes as OA;

/**
 * What a project keeps of evidence, and how much it may.
 */
#[OA\Schema(description: 'What a project keeps of evidence, and how much it may.')]
final readonly class StorageState
{
    public function __construct(
        #[OA\Property] public int $bytes,
        #[OA\Property] public int $files,
        #[OA\Property] public ?int $limit_mb,
        #[OA\Property] public ?int $retention_days,
    ) {}
}
