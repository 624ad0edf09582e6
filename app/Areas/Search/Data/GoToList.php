<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Search\Data;

use OpenApi\Attributes as OA;

/**
 * What fits the words typed.
 */
#[OA\Schema(description: 'What fits the words typed.')]
final readonly class GoToList
{
    /**
     * @param  list<GoToItem>  $items
     */
    public function __construct(#[OA\Property(items: new OA\Items(ref: GoToItem::class))] public array $items) {}
}
