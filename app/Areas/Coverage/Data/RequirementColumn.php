<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Coverage\Data;

use OpenApi\Attributes as OA;

/**
 * What a column of a file, or an attribute of its objects, is taken for.
 */
#[OA\Schema(description: 'What a column of a file, or an attribute of its objects, is taken for.')]
final readonly class RequirementColumn
{
    public function __construct(
        #[OA\Property] public string $name,
        #[
            OA\Property(
                description: 'A detail is kept by its name beside the words',
                enum: ['key', 'external_id', 'parent', 'level', 'title', 'text', 'detail', 'none'],
            ),
        ]
        public string $meaning,
    ) {}
}
