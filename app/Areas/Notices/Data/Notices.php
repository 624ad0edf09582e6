<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Notices\Data;

use OpenApi\Attributes as OA;

/**
 * The newest notices, and how many are unread.
 */
#[OA\Schema(description: 'The newest notices, and how many are unread.')]
final readonly class Notices
{
    /**
     * @param  list<NoticeLine>  $items
     */
    public function __construct(
        #[OA\Property] public int $unread,
        #[OA\Property(items: new OA\Items(ref: NoticeLine::class))] public array $items,
    ) {}
}
