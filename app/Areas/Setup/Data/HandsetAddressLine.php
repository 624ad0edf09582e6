<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Setup\Data;

use LucidStep\App\Support\Data\Named;
use OpenApi\Attributes as OA;

/**
 * An address that the handset may show.
 */
#[OA\Schema(description: 'An address that the handset may show.')]
final readonly class HandsetAddressLine
{
    public function __construct(
        #[OA\Property(description: 'Of the environment; null for the practice page', format: 'uuid')] public ?string $environment_id,
        #[OA\Property] public string $name,
        #[OA\Property] public string $address,
        #[OA\Property(description: 'Scheme, host and port: everything below is allowed')] public string $origin,
        #[OA\Property(description: 'The practice page that comes with the demo: no project lists it')] public bool $built_in,
        #[OA\Property(description: 'What is deployed there')] public ?Named $build,
        #[OA\Property(description: 'Whether its pages may report what is done on them to a session')] public bool $observed,
    ) {}
}
