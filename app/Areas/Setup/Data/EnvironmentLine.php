<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Setup\Data;

use LucidStep\App\Models\Environment;
use LucidStep\App\Support\Data\Named;
use OpenApi\Attributes as OA;

/**
 * A named place where a build runs.
 */
#[OA\Schema(description: 'A named place where a build runs.')]
final readonly class EnvironmentLine
{
    public function __construct(
        #[OA\Property(format: 'uuid')] public string $id,
        #[OA\Property] public string $name,
        #[OA\Property(description: 'Of the application under test; empty where it has none')] public string $address,
        #[OA\Property(description: 'What is deployed there')] public ?Named $build,
        #[OA\Property] public string $notes,
        #[OA\Property(description: 'Whether its pages may report what is done on them to a session')] public bool $observed,
    ) {}

    /**
     * @param  Environment  $e with its build loaded
     */
    public static function from(Environment $e): self
    {
        return new self($e->id, $e->name, $e->address, Named::orNull($e->build), $e->notes, $e->observed);
    }
}
