<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\People\Data;

use OpenApi\Attributes as OA;

/**
 * A person of the installation.
 */
#[OA\Schema(description: 'A person of the installation.')]
final readonly class InstallationPerson
{
    /**
     * @param  list<string>  $projects such as "SKR: tester"
     */
    public function __construct(
        #[OA\Property] public string $id,
        #[OA\Property] public string $name,
        #[OA\Property] public string $email,
        #[OA\Property] public bool $is_owner,
        #[OA\Property] public bool $has_second_factor,
        #[OA\Property(items: new OA\Items(type: 'string'))] public array $projects,
    ) {}
}
