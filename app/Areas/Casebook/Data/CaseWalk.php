<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Data;

use LucidStep\App\Models\Entry;
use OpenApi\Attributes as OA;

/**
 * Where a case stands in a cycle.
 */
#[OA\Schema(description: 'Where a case stands in a cycle.')]
final readonly class CaseWalk
{
    public function __construct(
        #[OA\Property] public string $entry_id,
        #[OA\Property] public string $cycle_key,
        #[OA\Property] public string $cycle_name,
        #[OA\Property] public ?string $configuration,
        #[OA\Property] public string $display_state,
        #[OA\Property] public ?string $previous_verdict,
        #[OA\Property] public ?string $last_attempt_id,
    ) {}

    /**
     * @param  Entry  $e with cycle and configuration loaded
     */
    public static function from(Entry $e): self
    {
        return new self(
            $e->id,
            $e->cycle->key,
            $e->cycle->name,
            $e->configuration?->name,
            $e->display_state,
            $e->previous_verdict,
            $e->last_attempt_id,
        );
    }
}
