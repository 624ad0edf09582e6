<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Changes;

use OpenApi\Attributes as OA;

/**
 * What changed since a place in the feed, and the place now.
 */
#[OA\Schema(description: 'What changed since a place in the feed, and the place now.')]
final readonly class ChangeFeed
{
    /**
     * @param  list<ChangeLine>  $changes
     */
    public function __construct(
        #[OA\Property] public string $cursor,
        #[OA\Property(items: new OA\Items(ref: ChangeLine::class))] public array $changes,
    ) {}
}
