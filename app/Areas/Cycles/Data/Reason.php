<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Data;

use LucidStep\Core\Execution\HeldReason;
use OpenApi\Attributes as OA;

/**
 * Why an entry is held, or what it should wait for.
 */
#[OA\Schema(description: 'Why an entry is held, or what it should wait for.')]
final readonly class Reason
{
    public function __construct(
        #[
            OA\Property(enum: ['waits_for', 'needs_pass', 'needs_pass_not_applicable', 'stopped', 'too_early', 'too_late']),
        ]
        public string $kind,
        #[OA\Property] public ?string $entry_id,
        #[OA\Property] public ?string $name,
        #[OA\Property] public ?string $at,
    ) {}

    public static function from(HeldReason $reason): self
    {
        return new self($reason->kind, $reason->entry, $reason->name, $reason->at?->format('Y-m-d\TH:i:s\Z'));
    }
}
