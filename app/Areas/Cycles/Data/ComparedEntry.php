<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Data;

use LucidStep\Core\Planning\Comparison as Rules;
use OpenApi\Attributes as OA;

/**
 * The same entry in two cycles or builds.
 */
#[OA\Schema(description: 'The same entry in two cycles or builds.')]
final readonly class ComparedEntry
{
    public function __construct(
        #[OA\Property] public string $key,
        #[OA\Property] public string $title,
        #[OA\Property] public string $configuration,
        #[OA\Property] public ?string $before,
        #[OA\Property] public ?string $after,
        #[OA\Property(enum: Rules::CLASSES)] public string $is,
        #[OA\Property] public ?string $before_id,
        #[OA\Property] public ?string $after_id,
    ) {}
}
