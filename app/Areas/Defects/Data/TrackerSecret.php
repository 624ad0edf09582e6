<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Data;

use OpenApi\Attributes as OA;

/**
 * The secret with which a tracker signs what it tells: shown once.
 */
#[OA\Schema(description: 'The secret with which a tracker signs what it tells: shown once.')]
final readonly class TrackerSecret
{
    public function __construct(#[OA\Property] public string $secret) {}
}
