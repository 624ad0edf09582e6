<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\People\Http\Resources;

use OpenApi\Attributes as OA;

/**
 * A sign-in of the demo.
 */
#[OA\Schema(description: 'A sign-in of the demo.')]
final readonly class DemoSignIn
{
    public function __construct(
        #[OA\Property] public string $name,
        #[OA\Property] public string $email,
        #[OA\Property] public string $password,
        #[OA\Property] public string $role,
    ) {}
}
