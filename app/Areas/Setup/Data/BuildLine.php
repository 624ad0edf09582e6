<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Setup\Data;

use OpenApi\Attributes as OA;

/**
 * A build of a release.
 */
#[OA\Schema(description: 'A build of a release.')]
final readonly class BuildLine
{
    public function __construct(
        #[OA\Property] public string $id,
        #[OA\Property] public string $name,
        #[OA\Property] public ?string $release_id,
    ) {}
}
