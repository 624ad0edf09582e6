<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Data;

use LucidStep\App\Models\Build;
use LucidStep\App\Models\Configuration;
use LucidStep\App\Models\Environment;
use OpenApi\Attributes as OA;

/**
 * Something with a name: a build, a configuration, an environment, a folder.
 */
#[OA\Schema(description: 'Something with a name: a build, a configuration, an environment, a folder.')]
final readonly class Named
{
    public function __construct(#[OA\Property] public string $id, #[OA\Property] public string $name) {}

    public static function from(Build|Configuration|Environment $thing): self
    {
        return new self($thing->id, $thing->name);
    }

    public static function orNull(Build|Configuration|Environment|null $thing): ?self
    {
        return null === $thing ? null : self::from($thing);
    }
}
