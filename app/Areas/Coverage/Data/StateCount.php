<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Coverage\Data;

use LucidStep\Core\Coverage\CoverageState;
use OpenApi\Attributes as OA;

/**
 * How many requirements, or cases, show a state.
 */
#[OA\Schema(description: 'How many requirements, or cases, show a state.')]
final readonly class StateCount
{
    public function __construct(#[OA\Property(enum: CoverageState::class)] public string $state, #[OA\Property] public int $count) {}

    /**
     * @param  array<string, int>  $counts by state
     *
     * @return list<self> worst first
     */
    public static function all(array $counts): array
    {
        $found = [];
        foreach (CoverageState::cases() as $state) {
            if (($counts[$state->value] ?? 0) > 0) {
                $found[] = new self($state->value, $counts[$state->value]);
            }
        }

        return $found;
    }
}
