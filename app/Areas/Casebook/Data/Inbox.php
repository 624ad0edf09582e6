<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Data;

use OpenApi\Attributes as OA;

/**
 * What waits for the authors.
 */
#[OA\Schema(description: 'What waits for the authors.')]
final readonly class Inbox
{
    /**
     * @param  list<CaseMessageLine>  $messages
     * @param  list<CaseLine>  $returned
     * @param  list<CaseLine>  $in_review
     */
    public function __construct(
        #[OA\Property(items: new OA\Items(ref: CaseMessageLine::class))] public array $messages,
        #[OA\Property(items: new OA\Items(ref: CaseLine::class))] public array $returned,
        #[OA\Property(items: new OA\Items(ref: CaseLine::class))] public array $in_review,
    ) {}
}
