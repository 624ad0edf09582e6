<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Data;

use LucidStep\App\Models\DefectLink;
use OpenApi\Attributes as OA;

/**
 * Where a defect was met.
 */
#[OA\Schema(description: 'Where a defect was met.')]
final readonly class DefectOrigin
{
    public function __construct(
        #[OA\Property] public string $entry_id,
        #[OA\Property] public string $attempt_id,
        #[OA\Property] public int $attempt_number,
        #[OA\Property] public string $case_key,
        #[OA\Property] public string $title,
        #[OA\Property] public string $cycle_key,
        #[OA\Property] public string $cycle_name,
        #[OA\Property] public ?int $step,
        #[OA\Property] public string $created_at,
    ) {}

    /**
     * @param  DefectLink  $l with entry.case, entry.cycle and attempt loaded
     */
    public static function from(DefectLink $l): self
    {
        return new self(
            $l->entry_id,
            $l->attempt_id,
            $l->attempt->number,
            $l->entry->case->key,
            $l->entry->case->title,
            $l->entry->cycle->key,
            $l->entry->cycle->name,
            $l->step,
            $l->created_at->toIso8601ZuluString(),
        );
    }
}
