<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\People\Data;

use OpenApi\Attributes as OA;

/**
 * A second factor that is being set up.
 */
#[OA\Schema(description: 'A second factor that is being set up.')]
final readonly class NewFactor
{
    public function __construct(
        #[OA\Property(description: 'In base 32, to be typed where no QR code can be read')] public string $secret,
        #[OA\Property(description: 'What the QR code says')] public string $uri,
    ) {}
}
