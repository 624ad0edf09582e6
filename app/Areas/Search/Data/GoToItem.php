<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Search\Data;

use OpenApi\Attributes as OA;

/**
 * Something one can go to.
 */
#[OA\Schema(description: 'Something one can go to.')]
final readonly class GoToItem
{
    public const KINDS = ['case', 'entry', 'cycle', 'defect', 'charter', 'requirement', 'routine', 'data table', 'suite', 'person'];

    public function __construct(
        #[OA\Property(enum: self::KINDS)] public string $kind,
        #[OA\Property(description: 'Its key; empty where it has none')] public string $key,
        #[OA\Property] public string $title,
        #[OA\Property(description: 'Of an entry: its cycle')] public string $of,
        #[OA\Property(description: 'Its address below the project')] public string $link,
    ) {}
}
