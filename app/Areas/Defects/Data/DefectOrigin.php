<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Data;

use LucidStep\App\Models\DefectLink;
use LucidStep\Core\Verdict\Verdict;
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
        #[OA\Property(description: 'What that step shows, or the whole walk', enum: Verdict::class)] public string $verdict,
        #[OA\Property(description: 'Empty where it names none')] public string $build,
        #[OA\Property(description: 'Empty where it names none')] public string $configuration,
        #[OA\Property] public string $created_at,
    ) {}

    /**
     * @param  DefectLink  $l with entry.case, entry.cycle, attempt.build and attempt.configuration loaded
     * @param  ?string  $verdict of the linked step; null: of the walk
     */
    public static function from(DefectLink $l, ?string $verdict): self
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
            $verdict ?? ($l->attempt->verdict ?? $l->attempt->roll_up)->value,
            $l->attempt->build->name ?? '',
            $l->attempt->configuration->name ?? '',
            $l->created_at->toIso8601ZuluString(),
        );
    }
}
