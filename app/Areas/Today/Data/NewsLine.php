<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Today\Data;

use LucidStep\App\Support\Data\Person;
use OpenApi\Attributes as OA;

/**
 * Something that changed since one looked last.
 */
#[OA\Schema(description: 'Something that changed since one looked last.')]
final readonly class NewsLine
{
    public function __construct(
        #[OA\Property] public string $id,
        #[OA\Property(description: 'None for what changed of a whole cycle')] public ?string $entry_id,
        #[OA\Property(description: 'Of the case, or of the cycle')] public string $key,
        #[OA\Property] public string $title,
        #[OA\Property(enum: ['assigned', 'retest', 'judged', 'changed', 'freed', 'cycle'])] public string $kind,
        #[OA\Property] public string $text,
        #[OA\Property] public ?Person $by,
        #[OA\Property] public string $at,
    ) {}
}
