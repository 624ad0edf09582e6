<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Changes;

use OpenApi\Attributes as OA;

/**
 * Something that changed.
 */
#[OA\Schema(description: 'Something that changed.')]
final readonly class ChangeLine
{
    /** What can change. */
    public const TOPICS = ['entry', 'attempt', 'defect', 'case', 'cycle', 'session', 'observed', 'requirement', 'notice', 'setup'];

    public function __construct(
        #[OA\Property(enum: self::TOPICS)] public string $topic,
        #[OA\Property] public string $subject_id,
        #[OA\Property] public ?string $cycle_id,
    ) {}
}
