<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\People\Data;

use OpenApi\Attributes as OA;

/**
 * An address that works once, as whoever holds it sees it.
 */
#[OA\Schema(description: 'An address that works once, as whoever holds it sees it.')]
final readonly class OneTimeLinkPage
{
    public function __construct(
        #[
            OA\Property(description: 'owner: of this installation; password: another one', enum: ['owner', 'password']),
        ]
        public string $purpose,
        #[OA\Property(description: 'Whose it is; null: of the first owner, who is nobody yet')] public ?string $email,
        #[OA\Property] public ?string $name,
    ) {}
}
