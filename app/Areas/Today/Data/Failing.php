<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Today\Data;

use OpenApi\Attributes as OA;

/**
 * Something that does not work in the background.
 */
#[OA\Schema(description: 'Something that does not work in the background.')]
final readonly class Failing
{
    public function __construct(
        #[OA\Property] public string $text,
        #[OA\Property(description: 'Where it is looked after, inside the project')] public ?string $page,
    ) {}
}
