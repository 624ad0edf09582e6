<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Data;

use LucidStep\App\Models\TrackerCall;
use OpenApi\Attributes as OA;

/**
 * Something that waits to be told to the tracker outside, or was refused there.
 */
#[OA\Schema(description: 'Something that waits to be told to the tracker outside, or was refused there.')]
final readonly class TrackerCallLine
{
    public function __construct(
        #[OA\Property] public string $id,
        #[OA\Property] public string $defect,
        #[OA\Property(enum: ['file', 'comment', 'attach', 'move'])] public string $act,
        #[OA\Property(enum: ['waiting', 'refused'])] public string $state,
        #[OA\Property] public int $tries,
        #[OA\Property] public string $since,
        #[OA\Property(description: 'When it is tried again; null: it is refused')] public ?string $next_at,
        #[OA\Property(description: 'What came of it last, and what to do')] public string $problem,
    ) {}

    /**
     * @param  TrackerCall  $call with its defect loaded
     */
    public static function from(TrackerCall $call): self
    {
        $waits = 'waiting' === $call->state->value;

        return new self(
            $call->id,
            $call->defect->key,
            $call->act,
            $call->state->value,
            $call->tries,
            $call->created_at->toIso8601ZuluString(),
            $waits ? $call->next_at->toIso8601ZuluString() : null,
            $call->problem,
        );
    }
}
