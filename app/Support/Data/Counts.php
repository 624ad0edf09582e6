<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Data;

use OpenApi\Attributes as OA;

/**
 * How many entries show what.
 */
#[OA\Schema(description: 'How many entries show what.')]
final readonly class Counts
{
    public function __construct(
        #[OA\Property] public int $pass,
        #[OA\Property] public int $fail,
        #[OA\Property] public int $blocked,
        #[OA\Property] public int $not_applicable,
        #[OA\Property] public int $not_run,
        #[OA\Property] public int $in_progress,
        #[OA\Property] public int $retest,
    ) {}

    /**
     * @param  array<string, int>  $by counts by what is shown
     */
    public static function of(array $by): self
    {
        return new self(
            $by['pass'] ?? 0,
            $by['fail'] ?? 0,
            $by['blocked'] ?? 0,
            $by['not_applicable'] ?? 0,
            $by['not_run'] ?? 0,
            $by['in_progress'] ?? 0,
            $by['retest'] ?? 0,
        );
    }
}
