<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Today\Data;

use OpenApi\Attributes as OA;

/**
 * The next entries of a person, for when the server is away.
 */
#[OA\Schema(description: 'The next entries of a person, for when the server is away.')]
final readonly class WalkPack
{
    /**
     * @param  list<PackedEntry>  $entries
     */
    public function __construct(#[OA\Property(items: new OA\Items(ref: PackedEntry::class))] public array $entries) {}
}
