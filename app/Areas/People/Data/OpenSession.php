<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\People\Data;

use OpenApi\Attributes as OA;

/**
 * A browser in which one is signed in.
 */
#[OA\Schema(description: 'A browser in which one is signed in.')]
final readonly class OpenSession
{
    public function __construct(
        #[OA\Property(description: 'To end it by; it opens nothing')] public string $id,
        #[OA\Property(description: 'Such as "Firefox on Windows"')] public string $device,
        #[OA\Property(description: 'The network address it was used from last')] public ?string $address,
        #[OA\Property] public string $used_at,
        #[OA\Property(description: 'Whether it is the one that asks')] public bool $is_this,
    ) {}
}
