<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Data;

use LucidStep\App\Support\Data\Counts;
use LucidStep\App\Support\Data\Person;
use OpenApi\Attributes as OA;

/**
 * A sign-off: who, when, and what was knowingly left unwalked.
 */
#[OA\Schema(description: 'A sign-off: who, when, and what was knowingly left unwalked.')]
final readonly class SignOffLine
{
    /**
     * @param  list<UnwalkedEntry>  $unwalked
     */
    public function __construct(
        #[OA\Property] public string $id,
        #[OA\Property] public Person $by,
        #[OA\Property] public string $at,
        #[OA\Property] public string $note,
        #[OA\Property] public Counts $counts,
        #[OA\Property(items: new OA\Items(ref: UnwalkedEntry::class))] public array $unwalked,
    ) {}
}
