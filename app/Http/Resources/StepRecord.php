<?php

declare(strict_types=1);

namespace LucidStep\App\Http\Resources;

use LucidStep\App\Models\StepResult;
use OpenApi\Attributes as OA;

/**
 * What was recorded of a step.
 */
#[OA\Schema(description: 'What was recorded of a step.')]
final readonly class StepRecord
{
    public function __construct(
        #[OA\Property]
        public int $position,
        #[OA\Property(enum: ['pass', 'fail', 'blocked', 'not_applicable', 'not_run'])]
        public string $verdict,
        #[OA\Property]
        public string $note,
        #[OA\Property]
        public string $happened,
        #[OA\Property]
        public string $reason,
        #[OA\Property]
        public string $waits_on,
        #[OA\Property]
        public int $active_ms,
        #[OA\Property(description: 'How often it was tried without a verdict')]
        public int $tries,
        #[OA\Property]
        public int $tries_failed,
        #[OA\Property]
        public ?string $judged_at,
    ) {
    }

    public static function from(StepResult $r): self
    {
        return new self($r->position, $r->verdict->value, $r->note, $r->happened, $r->reason, $r->waits_on, $r->active_ms, $r->tries, $r->tries_failed, $r->judged_at?->toIso8601ZuluString('millisecond'));
    }
}
