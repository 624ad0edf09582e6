<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Data;

use LucidStep\App\Support\Data\Person;
use OpenApi\Attributes as OA;

/**
 * Something that waits for a lead.
 */
#[OA\Schema(description: 'Something that waits for a lead.')]
final readonly class QueueItem
{
    /**
     * @param  list<string>  $lines what it consists of, in order, where it is more than one thing
     */
    public function __construct(
        #[OA\Property] public string $id,
        #[OA\Property(enum: ['review', 'case_review', 'look', 'retest', 'late', 'time', 'condition', 'suite'])] public string $kind,
        #[OA\Property] public string $title,
        #[OA\Property] public string $text,
        #[OA\Property] public ?Person $by,
        #[OA\Property] public ?string $at,
        #[OA\Property] public string $link,
        #[OA\Property] public string $subject_id,
        #[OA\Property] public ?string $cycle,
        #[OA\Property(items: new OA\Items(type: 'string'))] public array $lines = [],
    ) {}
}
