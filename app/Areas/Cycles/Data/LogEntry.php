<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Data;

use LucidStep\App\Support\Data\ChangeOfField;
use LucidStep\App\Support\Data\Person;
use OpenApi\Attributes as OA;

/**
 * Something that was done to a cycle.
 */
#[OA\Schema(description: 'Something that was done to a cycle.')]
final readonly class LogEntry
{
    /**
     * @param  list<ChangeOfField>  $changes `build` by name, `starts_on` and `ends_on` as days
     */
    public function __construct(
        #[OA\Property] public int $id,
        #[OA\Property] public string $at,
        #[OA\Property] public ?Person $by,
        #[OA\Property] public string $text,
        #[OA\Property] public string $reason,
        #[OA\Property] public ?string $act_id,
        #[OA\Property(items: new OA\Items(ref: ChangeOfField::class))] public array $changes,
    ) {}
}
